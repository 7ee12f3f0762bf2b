package ironing.core.combinedfiles;

import static java.nio.charset.StandardCharsets.UTF_8;

import ironing.core.game.CombineWay;
import ironing.core.game.GameDefinition.Combine;
import ironing.core.game.GameDefinition.ElementKey;
import ironing.core.game.GoesOn;
import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Short ways to combine texts in tests. The sides are called A, B, C. */
final class Combining {
  private Combining() {}

  static Combine rule(CombineWay way) {
    List<String> key =
        way == CombineWay.TABLE
            ? List.of("id")
            : way == CombineWay.XML ? List.of("@id") : List.of();
    Map<String, ElementKey> arrays =
        Map.of(
            "/widgets",
            new ElementKey(Optional.of("id")),
            "/tags",
            new ElementKey(Optional.empty()));
    Optional<String> once =
        way == CombineWay.TEXT ? Optional.of("^routine\\s+(\\S+)") : Optional.empty();
    return new Combine(PathPattern.of("**", PathCase.SENSITIVE), way, once, key, arrays, Set.of());
  }

  /** INI whose values may go on over lines. */
  static CombinedFile longIni(String base, String... sides) {
    Combine rule =
        new Combine(
            PathPattern.of("**", PathCase.SENSITIVE),
            CombineWay.INI,
            Optional.empty(),
            List.of(),
            Map.of(),
            Set.of(GoesOn.BRACES, GoesOn.BACKSLASH));
    return by(rule, Map.of(), base, sides);
  }

  /** JSON with one array named. */
  static CombinedFile json(String pointer, String key, String base, String... sides) {
    Combine rule =
        new Combine(
            PathPattern.of("**", PathCase.SENSITIVE),
            CombineWay.JSON,
            Optional.empty(),
            List.of(),
            Map.of(pointer, new ElementKey(Optional.of(key).filter(k -> !k.isEmpty()))),
            Set.of());
    return by(rule, Map.of(), base, sides);
  }

  static CombinedFile of(CombineWay way, String base, String... sides) {
    return of(way, Map.of(), base, sides);
  }

  static CombinedFile of(
      CombineWay way, Map<String, Choice> choices, String base, String... sides) {
    return by(rule(way), choices, base, sides);
  }

  private static CombinedFile by(
      Combine rule, Map<String, Choice> choices, String base, String... sides) {
    List<Contender> contenders = new ArrayList<>();
    for (int i = 0; i < sides.length; i++)
      contenders.add(new Contender(Character.toString('A' + i), sides[i].getBytes(UTF_8)));
    Contender first = new Contender("base", base.getBytes(UTF_8));
    return FileCombiner.combine(rule, first, contenders, choices);
  }

  /** The outcome, which must be there. */
  static String text(CombineWay way, String base, String... sides) {
    CombinedFile c = of(way, base, sides);
    return new String(
        c.outcome().orElseThrow(() -> new AssertionError(c.places() + " " + c.remarks())), UTF_8);
  }
}
