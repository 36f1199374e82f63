// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import java.util.regex.Pattern;
import org.snakeyaml.engine.v2.api.DumpSettings;
import org.snakeyaml.engine.v2.api.RepresentToNode;
import org.snakeyaml.engine.v2.common.ScalarStyle;
import org.snakeyaml.engine.v2.nodes.Tag;
import org.snakeyaml.engine.v2.representer.StandardRepresenter;

/**
 * Quotes strings that YAML 1.1 parsers take for dates, times, numbers or booleans: to them, 04:10
 * is 250. Other tools may read these files, too.
 */
final class QuotedTexts extends StandardRepresenter {

  private static final Pattern MISREAD =
      Pattern.compile("(?i)[-+]?[.0-9][-+.:_0-9etz]*|yes|no|on|off|y|n");

  QuotedTexts(DumpSettings settings) {
    super(settings);
    RepresentToNode usual = representers.get(String.class);
    representers.put(
        String.class,
        text ->
            MISREAD.matcher((String) text).matches()
                ? representScalar(Tag.STR, (String) text, ScalarStyle.SINGLE_QUOTED)
                : usual.representData(text));
  }
}
