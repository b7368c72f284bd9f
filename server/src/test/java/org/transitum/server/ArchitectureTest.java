package org.transitum.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.methods;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.importer.ImportOption.DoNotIncludeTests;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.server.team.AllowedTo;

@AnalyzeClasses(packages = "org.transitum", importOptions = DoNotIncludeTests.class)
class ArchitectureTest {

  @ArchTest
  static final ArchRule sourcesKnowNoServer =
      noClasses()
          .that()
          .resideInAPackage("org.transitum.sources..")
          .should()
          .dependOnClassesThat()
          .resideInAPackage("org.transitum.server..");

  @ArchTest
  static final ArchRule standInsKnowWhatTheyStandInForByItsFormatOnly =
      noClasses()
          .that()
          .resideInAPackage("org.transitum.standins..")
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage("org.transitum.server..", "org.transitum.sources..");

  @ArchTest
  static final ArchRule mappersStayInTheirCapability =
      classes()
          .that()
          .haveSimpleNameEndingWith("Mapper")
          .and()
          .resideInAPackage("org.transitum.server..")
          .should()
          .bePackagePrivate();

  @ArchTest
  static final ArchRule controllersStayInTheirCapability =
      classes().that().areAnnotatedWith(RestController.class).should().bePackagePrivate();

  @ArchTest
  static final ArchRule sqlStaysInMappers =
      noClasses()
          .that()
          .resideInAPackage("org.transitum.server..")
          .should()
          .dependOnClassesThat()
          .resideInAPackage("java.sql..");

  @ArchTest
  static final ArchRule everyApiEndpointSaysWhoMayCallIt =
      methods()
          .that()
          .areDeclaredInClassesThat()
          .areAnnotatedWith(RestController.class)
          .and()
          .areDeclaredInClassesThat()
          .doNotHaveSimpleName("SignInController")
          .and()
          .areNotPrivate()
          .and()
          .doNotHaveName("<init>")
          .should()
          .beAnnotatedWith(AllowedTo.class);
}
