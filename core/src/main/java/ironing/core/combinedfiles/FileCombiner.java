package ironing.core.combinedfiles;

import ironing.core.combinedfiles.CombinedFile.Piece;
import ironing.core.combinedfiles.Place.Side;
import ironing.core.combinedfiles.Tree.Unfit;
import ironing.core.game.CombineWay;
import ironing.core.game.GameDefinition.Combine;
import ironing.core.text.DecodedText;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * Combines the versions of one file as the game's definition says; by lines where a version does
 * not parse as what it should be.
 *
 * <p>Threads: stateless. Cost: linear in the bytes for what has keys; for text see {@link
 * LineMerge}. Room: some ten times the bytes.
 */
public final class FileCombiner {
  /** Larger ones are taken whole. */
  public static final int MOST_BYTES = 64 << 20;

  private final Combine rule;
  private final Contender base;
  private final List<Contender> contenders;
  private final Map<String, Choice> choices;
  private final List<Remark> remarks = new ArrayList<>();
  private final List<String> ids;
  private final int asksWhenOf;

  private FileCombiner(
      Combine rule,
      Contender base,
      List<Contender> contenders,
      Map<String, Choice> choices,
      boolean isBaseSure) {
    this.asksWhenOf = isBaseSure || contenders.size() < 2 ? 0 : contenders.size();
    this.rule = rule;
    this.base = base;
    this.contenders = contenders;
    this.choices = choices;
    this.ids = contenders.stream().map(Contender::id).toList();
  }

  /**
   * @param base what every contender is measured against
   * @param contenders in layer order; the base is none of them
   * @param choices the user's, by the keys of places
   */
  public static CombinedFile combine(
      Combine rule, Contender base, List<Contender> contenders, Map<String, Choice> choices) {
    return combine(rule, base, contenders, choices, true);
  }

  /**
   * The same.
   *
   * @param isBaseSure whether the contenders are known to have been made from the base; if not,
   *     what all of them have alike and the base has not is a question: they may have been made
   *     from an older file, and the base may be what has changed
   */
  public static CombinedFile combine(
      Combine rule,
      Contender base,
      List<Contender> contenders,
      Map<String, Choice> choices,
      boolean isBaseSure) {
    if (contenders.isEmpty()) throw new IllegalArgumentException("nobody contends with the base");
    return new FileCombiner(rule, base, contenders, choices, isBaseSure).combined();
  }

  private CombinedFile combined() {
    List<Contender> all = new ArrayList<>(contenders);
    all.add(0, base);
    List<DecodedText> texts = new ArrayList<>();
    for (Contender c : all) {
      if (c.bytes().length > MOST_BYTES)
        return impossible("too-large", c, "It is larger than 64 MB, and is taken whole.");
      DecodedText t = DecodedText.of(c.bytes());
      if (t.text().indexOf('\0') >= 0)
        return impossible("binary", c, "It is no text, and is taken whole.");
      if (t.remark().isPresent()) {
        boolean back =
            t.form().encode(t.text()).filter(b -> Arrays.equals(b, c.bytes())).isPresent();
        if (!back)
          return impossible(
              "encoding-unclear", c, "Some of its bytes are no characters, and would be lost.");
        remarks.add(new Remark("encoding", c.id(), t.remark().get()));
      }
      texts.add(t);
    }
    DecodedText first = texts.get(0);
    List<String> others = texts.subList(1, texts.size()).stream().map(DecodedText::text).toList();
    CombinedFile c =
        rule.as() == CombineWay.TEXT ? asText(first.text(), others) : byKeys(first.text(), others);
    Optional<byte[]> bytes = Optional.empty();
    if (c.asked() == 0 && remarks.stream().noneMatch(r -> r.code().equals("unparsed"))) {
      bytes = first.form().encode(c.shown());
      if (bytes.isEmpty())
        remarks.add(
            new Remark(
                "unwritable",
                "",
                "The outcome has characters that "
                    + first.form().charset().displayName()
                    + ", in which the base is written, does not have."));
    }
    return new CombinedFile(c.way(), bytes, c.shown(), c.places(), c.pieces(), remarks);
  }

  private CombinedFile impossible(String code, Contender c, String reason) {
    remarks.add(new Remark(code, c.id(), reason));
    return new CombinedFile(rule.as(), Optional.empty(), "", List.of(), List.of(), remarks);
  }

  private CombinedFile asText(String first, List<String> others) {
    Places places = new Places(choices, asksWhenOf);
    TextCombiner t = new TextCombiner(first, ids, others, places);
    String shown = t.combine();
    rule.once().ifPresent(p -> once(new OnceNames(p), shown, others, places));
    return new CombinedFile(
        CombineWay.TEXT, Optional.empty(), shown, places.all(), t.pieces(), remarks);
  }

  /** Asks about each name that may stand only once, and that only the combination has twice. */
  private void once(OnceNames names, String shown, List<String> texts, Places places) {
    Map<String, Integer> now = names.in(shown);
    List<Map<String, Integer>> before = texts.stream().map(names::in).toList();
    for (String name : new TreeSet<>(now.keySet())) {
      if (now.get(name) < 2) continue;
      if (before.stream().anyMatch(b -> b.getOrDefault(name, 0) > 1)) continue;
      List<Side> having = new ArrayList<>();
      for (int i = 0; i < ids.size(); i++)
        if (before.get(i).containsKey(name))
          having.add(new Side(List.of(ids.get(i)), Optional.of(name)));
      if (having.size() < 2) continue;
      String where = "“" + name + "” stands " + now.get(name) + " times";
      places.addOnce(name, where, having);
    }
  }

  // a mod that only wrote other line ends has changed nothing, and none of its ends come in
  private static List<String> endedAs(String first, List<String> others) {
    String end = Lines.usualEnd(first);
    return others.stream()
        .map(t -> Lines.usualEnd(t).equals(end) ? t : Lines.endedBy(end, t))
        .toList();
  }

  /** What came out, and why some of it should rather be combined line by line. */
  private record Merged(String text, Set<TreeMerge.Doubt> doubts, Check check) {}

  /** That a text is what it should be. */
  private interface Check {
    void of(String text) throws Unfit;
  }

  private interface Merge {
    Merged combine(Places places);
  }

  private CombinedFile byKeys(String first, List<String> others) {
    Merge merge =
        rule.as() == CombineWay.TABLE
            ? tables(first, others)
            : trees(first, endedAs(first, others));
    if (merge == null) return asText(first, others);
    Places places = new Places(choices, asksWhenOf);
    Merged merged = merge.combine(places);
    if (!merged.doubts().isEmpty()) {
      merged.doubts().forEach(d -> unfit(d.side(), d.reason()));
      return asText(first, others);
    }
    String shown = merged.text();
    try {
      merged.check().of(shown);
      remarks.add(new Remark("parses", "", "The outcome parses as " + rule.as().title() + "."));
    } catch (Unfit e) {
      boolean typed = choices.values().stream().anyMatch(c -> c.text().isPresent());
      if (!typed) return otherwise(first, others, merged.check(), e);
      remarks.add(new Remark("unparsed", "", "What you typed does not fit. " + e.getMessage()));
    }
    return new CombinedFile(
        rule.as(), Optional.empty(), shown, places.all(), List.<Piece>of(), remarks);
  }

  /**
   * What comes out where entries put together by their keys are no such file: the lines put
   * together, or, where these are none either, the question whose file it is.
   */
  private CombinedFile otherwise(String first, List<String> others, Check check, Unfit why) {
    String reason = "Put together by keys it would be read otherwise: " + why.getMessage();
    CombinedFile lines = asText(first, others);
    try {
      if (lines.asked() == 0) check.of(lines.shown());
      remarks.add(new Remark("by-lines", "", reason + " So it is combined line by line."));
      return lines;
    } catch (Unfit neither) {
      remarks.add(new Remark("by-lines", "", reason + " Nor does it line by line: one is taken."));
    }
    Places places = new Places(choices, asksWhenOf);
    List<Optional<String>> texts = others.stream().map(Optional::of).toList();
    List<Side> sides = Places.alike(ids, texts, texts);
    String shown =
        places.add("", "the whole file", Optional.of(first), sides, false).outcome().orElseThrow();
    return new CombinedFile(
        CombineWay.TEXT, Optional.empty(), shown, places.all(), List.of(), remarks);
  }

  private Merge tables(String first, List<String> others) {
    Optional<List<Table>> read = read(first, others, t -> Table.read(t, rule.key()));
    if (read.isEmpty()) return null;
    List<Table> all = read.get();
    return places ->
        new Merged(
            new TableMerge(all.get(0), ids, all.subList(1, all.size()), places).combine(),
            Set.of(),
            text -> Table.read(text, rule.key()));
  }

  private Merge trees(String first, List<String> others) {
    Optional<List<Tree>> read = read(first, others, this::tree);
    if (read.isEmpty()) return null;
    List<Tree> all = read.get();
    arrays(all);
    return places -> {
      List<Tree> sides = all.subList(1, all.size());
      TreeMerge m = new TreeMerge(all.get(0), ids, sides, places);
      return new Merged(m.combine(), m.doubts(), text -> check(text, all.get(0), sides, places));
    };
  }

  /** Tells of arrays that the definition names in vain. */
  private void arrays(List<Tree> all) {
    if (rule.as() != CombineWay.JSON && rule.as() != CombineWay.YAML) return;
    for (String pointer : rule.arrays().keySet())
      if (all.stream().noneMatch(t -> t.arrays().contains(pointer)))
        remarks.add(
            new Remark(
                "array-not-there",
                "",
                "The game’s definition names an array at “"
                    + pointer
                    + "”, and no version has one there."));
    Set<String> told = new HashSet<>();
    for (int i = 0; i < all.size(); i++)
      for (String reason : all.get(i).unfit())
        if (told.add(reason)) remarks.add(new Remark("array-whole", idOf(i - 1), reason));
  }

  private interface Reading<T> {
    T of(String text) throws Unfit;
  }

  private record Read<T>(T what, Unfit why) {
    static <T> Read<T> of(String text, Reading<T> reading) {
      try {
        return new Read<>(reading.of(text), null);
      } catch (Unfit e) {
        return new Read<>(null, e);
      }
    }
  }

  /** All of them read, the base first; or none, with remarks on those that do not parse. */
  private <T> Optional<List<T>> read(String first, List<String> others, Reading<T> reading) {
    List<String> texts = new ArrayList<>(others);
    texts.add(0, first);
    List<Read<T>> read = texts.parallelStream().map(t -> Read.of(t, reading)).toList();
    for (int i = 0; i < read.size(); i++)
      if (read.get(i).why != null) unfit(i - 1, read.get(i).why.getMessage());
    if (read.stream().anyMatch(r -> r.why != null)) return Optional.empty();
    return Optional.of(read.stream().map(Read::what).toList());
  }

  private void unfit(int side, String why) {
    String reason = why + " So the files are combined line by line.";
    remarks.add(new Remark("unparsable", idOf(side), reason));
  }

  private String idOf(int side) {
    return side < 0 ? base.id() : ids.get(side);
  }

  private void check(String text, Tree base, List<Tree> sides, Places places) throws Unfit {
    Optional<String> astray = new ReadBack(places.all()).astray(base, sides, tree(text));
    if (astray.isPresent())
      throw new Unfit("What stands at “" + astray.get() + "” would not be what was decided.");
  }

  private Tree tree(String text) throws Unfit {
    return switch (rule.as()) {
      case JSON -> JsonTree.read(text, rule.arrays());
      case YAML -> YamlTree.read(text, rule.arrays());
      case XML -> XmlTree.read(text, rule.key());
      case INI -> LineTrees.ini(text, rule.goesOn());
      case PROPERTIES -> LineTrees.properties(text);
      case LIST -> LineTrees.list(text);
      case TEXT, TABLE -> throw new IllegalStateException(rule.as().word());
    };
  }
}
