// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Which room may know which. */
@Tag("once")
class ArchitectureTest {

  private static final JavaClasses ALL =
      new ClassFileImporter()
          .withImportOption(new ImportOption.DoNotIncludeTests())
          .importPackages("dev.cachette");

  @Test
  void roomsKnowOnlyTheirNeighbours() {
    layeredArchitecture()
        .consideringOnlyDependenciesInAnyPackage("dev.cachette..")
        .layer("facade")
        .definedBy("dev.cachette")
        .layer("agent")
        .definedBy("dev.cachette.internal.agent")
        .layer("wire")
        .definedBy("dev.cachette.internal.wire")
        .layer("tls")
        .definedBy("dev.cachette.internal.tls")
        .layer("disk")
        .definedBy("dev.cachette.internal.disk")
        .layer("real")
        .definedBy("dev.cachette.internal.real")
        .layer("tunnel")
        .definedBy("dev.cachette.internal.tunnel")
        .whereLayer("facade")
        .mayNotBeAccessedByAnyLayer()
        .whereLayer("wire")
        .mayOnlyBeAccessedByLayers("facade", "real")
        .whereLayer("disk")
        .mayOnlyBeAccessedByLayers("facade")
        .whereLayer("real")
        .mayOnlyBeAccessedByLayers("facade")
        .whereLayer("agent")
        .mayOnlyBeAccessedByLayers("facade", "tls", "real", "tunnel")
        .whereLayer("tunnel")
        .mayNotBeAccessedByAnyLayer()
        .whereLayer("tls")
        .mayOnlyBeAccessedByLayers("facade", "wire")
        .check(ALL);
  }

  @Test
  void theEngineStaysInTheWireAndTheByteCodeInTheAgent() {
    noClasses()
        .that()
        .resideOutsideOfPackages("dev.cachette.internal.wire", "dev.cachette.internal.real")
        .should()
        .dependOnClassesThat()
        .resideInAPackage("io.netty..")
        .check(ALL);
    noClasses()
        .that()
        .resideOutsideOfPackage("dev.cachette.internal.agent")
        .should()
        .dependOnClassesThat()
        .resideInAPackage("org.objectweb.asm..")
        .check(ALL);
  }
}
