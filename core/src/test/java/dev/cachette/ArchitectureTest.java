package dev.cachette;

import static com.tngtech.archunit.core.domain.JavaCall.Predicates.target;
import static com.tngtech.archunit.core.domain.properties.HasName.Predicates.nameMatching;
import static com.tngtech.archunit.core.domain.properties.HasOwner.Predicates.With.owner;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noMethods;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaMethod;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.ArchCondition;
import com.tngtech.archunit.lang.ConditionEvents;
import com.tngtech.archunit.lang.SimpleConditionEvent;
import com.tngtech.archunit.library.dependencies.SliceAssignment;
import com.tngtech.archunit.library.dependencies.SliceIdentifier;
import org.junit.jupiter.api.Test;

/** The core computes, and does nothing else. */
class ArchitectureTest {

  private static final JavaClasses CORE =
      new ClassFileImporter()
          .withImportOption(new ImportOption.DoNotIncludeTests())
          .importPackages("dev.cachette");

  @Test
  void theCoreIsThere() {
    assertTrue(CORE.contain("dev.cachette.match.RequestPattern"));
  }

  /** URI and Path are allowed: as values they touch neither network nor disk. */
  @Test
  void noSocketsThreadsFilesClockOrTestFramework() {
    noClasses()
        .should()
        .dependOnClassesThat(named("java\\.net\\.(?!URI$).*"))
        .orShould()
        .dependOnClassesThat(
            named(
                "java\\.io\\.(File|RandomAccess).*|java\\.nio\\.(file\\.(?!Path$)|channels\\.).*"))
        .orShould()
        .dependOnClassesThat(
            named("java\\.lang\\.Thread.*|java\\.util\\.concurrent\\..*|java\\.util\\.Timer.*"))
        .orShould()
        .dependOnClassesThat(named("java\\.util\\.Date"))
        .orShould()
        .callMethodWhere(
            target(nameMatching("now|currentTimeMillis|nanoTime|system.*|tick.*"))
                .and(target(owner(named("java\\.time\\..*|java\\.lang\\.System")))))
        .orShould()
        .dependOnClassesThat(
            named("org\\.junit\\..*|org\\.slf4j\\..*|io\\.netty\\..*|org\\.objectweb\\..*"))
        .check(CORE);
  }

  @Test
  void publicSignaturesNameNoInternalType() {
    noMethods()
        .that()
        .areDeclaredInClassesThat()
        .resideOutsideOfPackage("..internal..")
        .and()
        .areDeclaredInClassesThat()
        .arePublic()
        .and()
        .arePublic()
        .should(nameAnInternalType())
        .check(CORE);
  }

  @Test
  void internalsFormNoCycles() {
    slices().matching("dev.cachette.internal.(*)..").should().beFreeOfCycles().check(CORE);
  }

  /** A public package and the internals of the same name are one slice. */
  @Test
  void packagesFormNoCycles() {
    slices().assignedFrom(new ByConcept()).should().beFreeOfCycles().check(CORE);
  }

  /** Assigns a class to the last part of its package, and rendering to answers. */
  private static final class ByConcept implements SliceAssignment {
    @Override
    public SliceIdentifier getIdentifierOf(JavaClass type) {
      String name = type.getPackageName().replaceFirst("^dev\\.cachette\\.(internal\\.)?", "");
      return SliceIdentifier.of(name.equals("render") ? "answer" : name);
    }

    @Override
    public String getDescription() {
      return "packages by concept";
    }
  }

  private static DescribedPredicate<JavaClass> named(String regex) {
    return DescribedPredicate.describe(
        "are named like " + regex, type -> type.getName().matches(regex));
  }

  private static ArchCondition<JavaMethod> nameAnInternalType() {
    return new ArchCondition<>("name an internal type") {
      @Override
      public void check(JavaMethod method, ConditionEvents events) {
        boolean named =
            method.getAllInvolvedRawTypes().stream()
                .anyMatch(type -> type.getPackageName().contains(".internal."));
        events.add(new SimpleConditionEvent(method, named, method.getFullName()));
      }
    };
  }
}
