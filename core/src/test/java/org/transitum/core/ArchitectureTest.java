package org.transitum.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption.DoNotIncludeTests;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** Core stays pure: what it computes depends on its inputs alone. */
@AnalyzeClasses(packages = "org.transitum.core", importOptions = DoNotIncludeTests.class)
class ArchitectureTest {

  @ArchTest
  static final ArchRule noFrameworkOrInterface =
      noClasses()
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage(
              "org.springframework..",
              "org.apache.ibatis..",
              "java.sql..",
              "javax.sql..",
              "java.net..",
              "java.io..",
              "java.nio.file..",
              "jakarta..",
              "tools.jackson..",
              "org.transitum.server..",
              "org.transitum.sources..");

  @ArchTest
  static final ArchRule noClock =
      noClasses()
          .should()
          .callMethod(java.time.Instant.class, "now")
          .orShould()
          .callMethod(java.time.LocalDate.class, "now")
          .orShould()
          .callMethod(System.class, "currentTimeMillis")
          .orShould()
          .callMethod(System.class, "nanoTime");

  @ArchTest
  static final ArchRule capabilitiesDoNotDependInCircles =
      slices().matching("org.transitum.core.(*)..").should().beFreeOfCycles();
}
