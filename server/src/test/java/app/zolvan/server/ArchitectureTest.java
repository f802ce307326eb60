package app.zolvan.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaCall;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.properties.HasName;
import com.tngtech.archunit.core.domain.properties.HasOwner;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

class ArchitectureTest {
    private static final JavaClasses CLASSES = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("app.zolvan");

    @Test
    void coreKnowsNeitherFrameworksNorStorageNorTheWeb() {
        noClasses()
                .that()
                .resideInAPackage("app.zolvan.core..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "org.springframework..",
                        "java.sql..",
                        "javax.sql..",
                        "org.apache.ibatis..",
                        "java.net..",
                        "jakarta..",
                        "tools.jackson.databind..",
                        "com.fasterxml..",
                        "app.zolvan.server..",
                        "app.zolvan.demo..")
                .check(CLASSES);
    }

    @Test
    void corePackagesHaveNoCycles() {
        slices().matching("app.zolvan.core.(**)").should().beFreeOfCycles().check(CLASSES);
    }

    @Test
    void theDemoAndTheServerLookAtCoreOnly() {
        noClasses()
                .that()
                .resideInAPackage("app.zolvan.demo..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("app.zolvan.server..")
                .check(CLASSES);
        noClasses()
                .that()
                .resideInAPackage("app.zolvan.server..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("app.zolvan.demo..")
                .check(CLASSES);
    }

    /** A picture is the same on every machine: Math may differ in the last bit from one processor to the next. */
    @Test
    void theTracerUsesOnlyFunctionsThatAreTheSameEverywhere() {
        noClasses()
                .that()
                .resideInAnyPackage("app.zolvan.core.render..", "app.zolvan.core.light..")
                .should()
                .callMethodWhere(JavaCall.Predicates.target(
                                HasOwner.Predicates.With.owner(JavaClass.Predicates.type(Math.class)))
                        .and(JavaCall.Predicates.target(HasName.Predicates.nameMatching(
                                "sin|cos|tan|exp|log|log10|pow|cbrt|atan|atan2|asin|acos|hypot|sinh|cosh|tanh"))))
                .check(CLASSES);
    }

    @Test
    void onlyMappersSpeakSql() {
        noClasses()
                .that()
                .haveSimpleNameNotEndingWith("Mapper")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("org.apache.ibatis.annotations..")
                .check(CLASSES);
    }

    @Test
    void controllersReachStorageOnlyThroughServices() {
        noClasses()
                .that()
                .haveSimpleNameEndingWith("Controller")
                .should()
                .callMethodWhere(JavaCall.Predicates.target(
                        HasOwner.Predicates.With.owner(JavaClass.Predicates.simpleNameEndingWith("Mapper")
                                .and(JavaClass.Predicates.resideInAPackage("app.zolvan..")))))
                .check(CLASSES);
    }
}
