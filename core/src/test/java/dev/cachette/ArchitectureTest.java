// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static com.tngtech.archunit.core.domain.JavaCall.Predicates.target;
import static com.tngtech.archunit.core.domain.properties.HasName.Predicates.nameMatching;
import static com.tngtech.archunit.core.domain.properties.HasOwner.Predicates.With.owner;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noMethods;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaAccess;
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
        .dependOnClassesThat(named("java\\.net\\.(?!(?:URI|IDN)$).*"))
        .orShould()
        .dependOnClassesThat(
            named(
                "java\\.io\\.(File|RandomAccess).*|java\\.nio\\.(file\\.(?!Path$)|channels\\.).*"))
        .orShould()
        .dependOnClassesThat(
            named(
                "java\\.lang\\.Thread(?!Local$).*"
                    + "|java\\.util\\.concurrent\\..*|java\\.util\\.Timer.*"))
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
        .areDeclaredInClassesThat()
        .haveSimpleNameNotEndingWith("Internals")
        .and()
        .arePublic()
        .should(nameAnInternalType())
        .check(CORE);
  }

  /** Public packages and internal ones alike. */
  @Test
  void packagesFormNoCycles() {
    slices().assignedFrom(new ByPackage()).should().beFreeOfCycles().check(CORE);
  }

  /** A new kind of body is a new class there, and no search for switches elsewhere. */
  @Test
  void onlyBodyFormatsKnowKindsOfBodies() {
    noClasses()
        .that()
        .resideOutsideOfPackages("dev.cachette.internal.body", "dev.cachette.internal.scan")
        .and()
        .doNotHaveFullyQualifiedName("dev.cachette.http.MediaType")
        .should()
        .accessTargetWhere(
            memberNamed(
                ".*\\.(MediaType|BodyType|BodyFormat|ValueFormat)",
                "isKindOf|isNamedBy|isLike|parts"))
        .orShould()
        .dependOnClassesThat(named(".*\\.internal\\.(body|scan)\\.(Json|Xml|Html|Multipart|Csv).*"))
        .check(CORE);
  }

  /** Except conditions that a user declares for one kind. */
  @Test
  void onlyBodyFormatsAndConditionsParseBodies() {
    noClasses()
        .that()
        .resideOutsideOfPackages("dev.cachette.internal.body", "dev.cachette.match")
        .should()
        .accessTargetWhere(memberNamed(".*\\.internal\\.content\\.Content", "form|parts|xml"))
        .check(CORE);
  }

  private static final class ByPackage implements SliceAssignment {
    @Override
    public SliceIdentifier getIdentifierOf(JavaClass type) {
      return SliceIdentifier.of(type.getPackageName());
    }

    @Override
    public String getDescription() {
      return "packages";
    }
  }

  private static DescribedPredicate<JavaClass> named(String regex) {
    return DescribedPredicate.describe(
        "are named like " + regex, type -> type.getName().matches(regex));
  }

  /** Also finds references to methods. */
  private static DescribedPredicate<JavaAccess<?>> memberNamed(String owner, String name) {
    return DescribedPredicate.describe(
        "is named like " + name + " in " + owner,
        access ->
            access.getTarget().getName().matches(name)
                && access.getTargetOwner().getName().matches(owner));
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
