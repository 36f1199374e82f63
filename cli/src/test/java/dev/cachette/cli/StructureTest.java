// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.junit.jupiter.api.Assertions.assertEquals;

import com.tngtech.archunit.core.domain.Dependency;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaMethod;
import com.tngtech.archunit.core.domain.JavaModifier;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.library.dependencies.SliceAssignment;
import com.tngtech.archunit.library.dependencies.SliceIdentifier;
import dev.cachette.Modules;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * The structure of all modules, and its drawing in the docs.
 *
 * <p>To write the drawing: {@code mvn verify -Dtest=StructureTest -Dreference.refresh=true}.
 */
@Tag("once")
class StructureTest {

  private static final Path PAGE = Path.of("..", "docs", "decisions", "030-modules.md");
  private static final String BEGINNING = "<!-- modules -->\n";
  private static final int MOST_COLLABORATORS = 25;

  private static final Map<String, String> MODULE_OF = new TreeMap<>();
  private static final JavaClasses ALL = imported();

  private static JavaClasses imported() {
    List<Path> paths = new ArrayList<>();
    for (String module : Modules.OURS) {
      Path classes = Path.of("..", module, "target", "classes");
      paths.add(classes);
      for (JavaClass type : new ClassFileImporter().importPath(classes)) {
        MODULE_OF.put(type.getName(), module);
      }
    }
    return new ClassFileImporter().importPaths(paths);
  }

  @Test
  void packagesFormNoCycles() {
    slices().assignedFrom(new ByPackage()).should().beFreeOfCycles().check(ALL);
  }

  @Test
  void noClassWorksWithManyOthers() {
    List<String> tooMany = new ArrayList<>();
    Map<String, Set<String>> collaborators = new TreeMap<>();
    for (JavaClass type : ALL) {
      Set<String> known = named(type);
      for (Dependency each : type.getDirectDependenciesFromSelf()) {
        JavaClass other = outermost(each.getTargetClass().getBaseComponentType());
        if (MODULE_OF.containsKey(other.getName())
            && !other.getName().equals(outermost(type).getName())
            && !known.contains(other.getName())
            && !isValue(other)) {
          collaborators
              .computeIfAbsent(outermost(type).getName(), name -> new TreeSet<>())
              .add(other.getName());
        }
      }
    }
    collaborators.forEach(
        (name, others) -> {
          if (others.size() > MOST_COLLABORATORS) {
            tooMany.add(name + " " + others.size() + ": " + others);
          }
        });
    assertEquals(List.of(), tooMany);
  }

  /** Returns the classes that public methods of a public class name: they are its purpose. */
  private static Set<String> named(JavaClass type) {
    boolean isPublic =
        type.getModifiers().contains(JavaModifier.PUBLIC)
            && !type.getPackageName().contains(".internal");
    return !isPublic
        ? Set.of()
        : type.getMethods().stream()
            .filter(method -> method.getModifiers().contains(JavaModifier.PUBLIC))
            .flatMap(method -> method.getAllInvolvedRawTypes().stream())
            .map(JavaClass::getName)
            .collect(Collectors.toSet());
  }

  private static JavaClass outermost(JavaClass type) {
    return type.getEnclosingClass().map(StructureTest::outermost).orElse(type);
  }

  private static boolean isValue(JavaClass type) {
    return type.isRecord()
        || type.isEnum()
        || type.isAnnotation()
        || type.isAssignableTo(Throwable.class);
  }

  @Test
  void publicSignaturesNameNoInternalType() {
    List<String> found = new ArrayList<>();
    for (JavaClass type : ALL) {
      boolean isOfUsers =
          type.getModifiers().contains(JavaModifier.PUBLIC)
              && !type.getPackageName().contains(".internal")
              && !type.getSimpleName().endsWith("Internals")
              && !type.isAssignableTo("dev.cachette.RunObserver");
      for (JavaMethod method : isOfUsers ? type.getMethods() : Set.<JavaMethod>of()) {
        boolean isForUsers =
            method.getModifiers().contains(JavaModifier.PUBLIC)
                || method.getModifiers().contains(JavaModifier.PROTECTED);
        if (isForUsers
            && method.getAllInvolvedRawTypes().stream()
                .anyMatch(it -> it.getPackageName().contains(".internal"))) {
          found.add(method.getFullName());
        }
      }
    }
    assertEquals(List.of(), found);
  }

  @Test
  void theToolKnowsNothingInternal() {
    noClasses()
        .that()
        .resideInAPackage("dev.cachette.cli")
        .should()
        .dependOnClassesThat()
        .resideInAPackage("dev.cachette.internal..")
        .orShould()
        .dependOnClassesThat()
        .haveSimpleNameEndingWith("Internals")
        .check(ALL);
  }

  @Test
  void theDrawingIsThatOfTheCode() throws IOException {
    String page = Files.readString(PAGE);
    String drawn = page.substring(0, page.indexOf(BEGINNING)) + BEGINNING + drawing();
    if (Boolean.getBoolean("reference.refresh")) {
      Files.writeString(PAGE, drawn);
    }
    assertEquals(drawn, Files.readString(PAGE));
  }

  private static String drawing() throws IOException {
    Map<String, Set<String>> uses = new LinkedHashMap<>();
    Modules.OURS.forEach(module -> uses.put(module, new TreeSet<>()));
    for (JavaClass type : ALL) {
      String module = MODULE_OF.get(type.getName());
      for (Dependency each : type.getDirectDependenciesFromSelf()) {
        String other = MODULE_OF.get(each.getTargetClass().getBaseComponentType().getName());
        if (other != null && !other.equals(module)) {
          uses.get(module).add(other);
        }
      }
    }
    StringBuilder text = new StringBuilder("\n```mermaid\ngraph TD\n");
    uses.forEach(
        (module, others) ->
            others.stream()
                .filter(other -> isDirect(module, other, uses))
                .forEach(other -> text.append("  " + module + " --> " + other + "\n")));
    text.append("```\n\nAn arrow is left out if there is a longer way.\n");
    for (String module : Modules.OURS) {
      text.append("\n**").append(module).append("**");
      if (!uses.get(module).isEmpty()) {
        text.append(" uses ").append(String.join(", ", uses.get(module)));
      }
      text.append("\n\n").append(packages(module));
    }
    return text.toString();
  }

  private static boolean isDirect(String module, String other, Map<String, Set<String>> uses) {
    return uses.get(module).stream()
        .noneMatch(between -> !between.equals(other) && reaches(between, other, uses));
  }

  private static boolean reaches(String from, String to, Map<String, Set<String>> uses) {
    return uses.get(from).contains(to)
        || uses.get(from).stream().anyMatch(next -> reaches(next, to, uses));
  }

  private static String packages(String module) throws IOException {
    StringBuilder text = new StringBuilder();
    try (Stream<Path> files = Files.walk(Path.of("..", module, "src", "main", "java"))) {
      for (Path file : files.filter(it -> it.endsWith("package-info.java")).sorted().toList()) {
        String source = Files.readString(file);
        String name = source.replaceAll("(?s).*\\npackage dev\\.cachette\\.?(.*?);.*", "$1");
        text.append("- `")
            .append(name.isEmpty() ? "dev.cachette" : name)
            .append("`: ")
            .append(firstSentence(source))
            .append('\n');
      }
    }
    return text.toString();
  }

  private static String firstSentence(String source) {
    String comment = source.replaceAll("(?s).*?/\\*\\*(.*?)\\*/.*", "$1");
    return comment
        .replaceAll("\\n \\*", " ")
        .replaceAll("\\{@\\w+ ([\\w.]*\\.)?([\\w#]+)}", "`$2`")
        .replaceAll("\\s+", " ")
        .trim()
        .replaceAll("(?s)\\. .*", ".");
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
}
