package dev.cachette.internal.xml;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Generator;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** XML that is generated: equal in other words, different when changed, refused when cut. */
class GeneratedXmlTest {

  private static final int CASES = 1_000;

  @Test
  void theSameDocumentInOtherWordsDoesNotDiffer() throws Exception {
    for (int seed = 0; seed < CASES; seed++) {
      Node root = node(new Generator(seed), 3);
      String one = root.written(new Random(seed), "h");
      String other = root.written(new Random(seed + 1L), "x");

      assertEquals(List.of(), differences(one, other), "seed " + seed + "\n" + one + "\n" + other);
    }
  }

  @Test
  void aChangedDocumentDiffers() throws Exception {
    for (int seed = 0; seed < CASES; seed++) {
      Generator generator = new Generator(seed);
      Node root = node(generator, 3);
      String before = root.written(new Random(seed), "h");
      root.any(generator).change(generator);
      String after = root.written(new Random(seed), "h");

      assertFalse(differences(before, after).isEmpty(), before + "\n" + after);
    }
  }

  @Test
  void aCutDocumentIsMalformed() {
    for (int seed = 0; seed < 100; seed++) {
      String whole = node(new Generator(seed), 2).written(new Random(seed), "h");
      for (int end = 0; end < whole.length() - 1; end++) {
        String cut = whole.substring(0, end);
        assertThrows(Xml.MalformedXml.class, () -> Xml.parse(cut), cut);
      }
    }
  }

  private static List<Difference> differences(String one, String other) throws Exception {
    return XmlComparison.differences(
        Xml.parse(one).getDocumentElement(), Xml.parse(other).getDocumentElement());
  }

  /** An element. */
  private static final class Node {
    private String name = "";
    private boolean qualified;
    private final List<String> attributes = new ArrayList<>();
    private final List<Node> children = new ArrayList<>();
    private String text = "";

    Node any(Generator generator) {
      return children.isEmpty() || generator.below(2) == 0
          ? this
          : children.get(generator.below(children.size())).any(generator);
    }

    void change(Generator generator) {
      switch (generator.below(4)) {
        case 0 -> name = name + "2";
        case 1 -> qualified = !qualified;
        case 2 -> attributes.add("fresh=\"1\"");
        default -> text = text + "more";
      }
    }

    String written(Random random, String prefix) {
      List<String> shuffled = new ArrayList<>(attributes);
      Collections.shuffle(shuffled, random);
      String tag = qualified ? prefix + ":" + name : name;
      StringBuilder out = new StringBuilder("<" + tag);
      out.append(" xmlns:").append(prefix).append("=\"urn:harbour\"");
      shuffled.forEach(
          attribute ->
              out.append(random.nextBoolean() ? " " : "\n")
                  .append(random.nextBoolean() ? attribute : attribute.replace('"', '\'')));
      if (children.isEmpty() && text.isEmpty() && random.nextBoolean()) {
        return out.append("/>").toString();
      }
      out.append('>').append(random.nextBoolean() ? text : "<![CDATA[" + plain() + "]]>");
      for (Node child : children) {
        out.append(random.nextBoolean() ? "\n  " : "").append(child.written(random, prefix));
        out.append(random.nextInt(5) == 0 ? "<!-- a comment -->" : "");
      }
      return out.append("</").append(tag).append('>').toString();
    }

    private String plain() {
      return text.replace("&lt;", "<").replace("&amp;", "&");
    }
  }

  private static Node node(Generator generator, int depth) {
    Node node = new Node();
    node.name = generator.one("cargo", "item", "vessel", "a-b", "ü");
    node.qualified = generator.below(2) == 0;
    node.text = generator.one("", "rope", "12", "a &lt; b &amp; c", "ü 🚢");
    for (int number = generator.below(3); number > 0; number--) {
      node.attributes.add("a" + number + "=\"" + generator.word(3) + "\"");
    }
    for (int number = depth == 0 ? 0 : generator.below(4); number > 0; number--) {
      node.children.add(node(generator, depth - 1));
    }
    return node;
  }
}
