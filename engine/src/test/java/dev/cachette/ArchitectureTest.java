// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static com.tngtech.archunit.core.domain.JavaCall.Predicates.target;
import static com.tngtech.archunit.core.domain.properties.HasName.Predicates.nameMatching;
import static com.tngtech.archunit.core.domain.properties.HasOwner.Predicates.With.owner;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaAccess;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The core, and the modules between it and the engine, compute and do nothing else. */
class ArchitectureTest {

  private static final JavaClasses COMPUTATION =
      new ClassFileImporter()
          .withImportOption(new ImportOption.DoNotIncludeTests())
          // The helpers of the tests of core, which are a jar once they are packaged.
          .withImportOption(location -> !location.contains("-tests.jar"))
          .importPackages("dev.cachette");

  @ParameterizedTest
  @ValueSource(
      strings = {
        "match.RequestPattern",
        "internal.yaml.Node",
        "internal.openapi.Description",
        "internal.cassette.LoadedCassette",
        "internal.stubfile.StubFile",
        "internal.engine.AnswerSources"
      })
  void eachModuleIsThere(String type) {
    assertTrue(COMPUTATION.contain("dev.cachette." + type));
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
        .check(COMPUTATION);
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
        .check(COMPUTATION);
  }

  /** Except conditions that a user declares for one kind. */
  @Test
  void onlyBodyFormatsAndConditionsParseBodies() {
    noClasses()
        .that()
        .resideOutsideOfPackages("dev.cachette.internal.body", "dev.cachette.match")
        .should()
        .accessTargetWhere(memberNamed(".*\\.internal\\.content\\.Content", "form|parts|xml"))
        .check(COMPUTATION);
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
}
