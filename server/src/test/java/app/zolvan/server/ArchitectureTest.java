package app.zolvan.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaCall;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
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
