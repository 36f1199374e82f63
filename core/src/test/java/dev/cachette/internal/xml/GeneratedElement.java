// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.xml;

import dev.cachette.Generator;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;

/** An XML element, to be written in several ways. */
public final class GeneratedElement {

  private String name = "";
  private boolean qualified;
  private final List<String> attributes = new ArrayList<>();
  private final List<GeneratedElement> children = new ArrayList<>();
  private String text = "";

  GeneratedElement any(Generator generator) {
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

  /** Returns one way to write it. */
  public String written(Random random, String prefix) {
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
    for (GeneratedElement child : children) {
      out.append(random.nextBoolean() ? "\n  " : "").append(child.written(random, prefix));
      out.append(random.nextInt(5) == 0 ? "<!-- a comment -->" : "");
    }
    return out.append("</").append(tag).append('>').toString();
  }

  private String plain() {
    return text.replace("&lt;", "<").replace("&amp;", "&");
  }

  /** Returns an element with children, nested this deep at most. */
  public static GeneratedElement of(Generator generator, int depth) {
    GeneratedElement node = new GeneratedElement();
    node.name = generator.one("cargo", "item", "vessel", "a-b", "ü");
    node.qualified = generator.below(2) == 0;
    node.text = generator.one("", "rope", "12", "a &lt; b &amp; c", "ü 🚢");
    for (int number = generator.below(3); number > 0; number--) {
      node.attributes.add("a" + number + "=\"" + generator.word(3) + "\"");
    }
    for (int number = depth == 0 ? 0 : generator.below(4); number > 0; number--) {
      node.children.add(of(generator, depth - 1));
    }
    return node;
  }
}
