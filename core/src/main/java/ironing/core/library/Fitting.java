package ironing.core.library;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.path.GamePath;
import ironing.core.yaml.YamlDocument;
import ironing.core.yaml.YamlDocument.Section;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * The questions of a fitting.yaml (ironing/fitting@1), and what answers to them come to. Immutable;
 * all of it is pure.
 */
public record Fitting(List<Move> inEveryCase, List<Question> questions) {
  private static final String FORMAT = "ironing/fitting@1";

  /**
   * Files that go into the game.
   *
   * @param from relative to the fitting's folder; with {@code /} at the end or empty, all in it
   * @param to with {@code /} at the end or empty, a folder
   * @param mount the mount that {@code to} counts from; empty to let the game's definition decide
   * @param place where it stands in the fitting, see {@link YamlDocument.Section#place}
   */
  public record Move(String from, String to, Optional<String> mount, String place) {
    public Move {
      // one that was written down before places were
      if (place == null) place = "";
    }
  }

  /**
   * @param onlyIf asked only then; nothing of a question that is not asked is installed
   * @param min and {@code max}: how many answers may be taken
   */
  public record Question(
      String id,
      String chapter,
      String ask,
      Optional<Condition> onlyIf,
      int min,
      int max,
      List<Answer> answers) {}

  /**
   * @param cost what it takes of the machine, empty when nothing is said
   * @param image relative to the fitting's folder
   * @param offer taken at first when it holds; empty when the file says nothing
   */
  public record Answer(
      String id,
      String say,
      String about,
      Optional<String> image,
      String cost,
      Optional<Condition> offer,
      List<Move> files) {}

  /** A question as it stands for given answers and facts. */
  public record Asked(Question question, Set<String> offered, Set<String> taken) {
    /** Why the answers taken will not do, empty when they will. */
    public Optional<String> amiss() {
      int n = taken.size();
      if (n < question.min())
        return Optional.of(
            question.min() == 1 && question.max() == 1
                ? "Take one."
                : "Take at least " + question.min() + ".");
      if (n > question.max())
        return Optional.of(
            question.max() == 1 ? "Take one only." : "Take at most " + question.max() + ".");
      return Optional.empty();
    }
  }

  /**
   * @throws IroningException with code {@code yaml-invalid} for every mistake
   */
  public static Fitting read(String file, String text) {
    return readWithWarnings(file, text).value();
  }

  /** The same, with what is odd about it and no mistake, such as keys that mean nothing. */
  public static YamlDocument.Read<Fitting> readWithWarnings(String file, String text) {
    return YamlDocument.read(file, text, Fitting::fitting);
  }

  /**
   * The questions that are asked, one after another, since each may hang on earlier answers.
   *
   * @param answers question to answers; a question that is not named gets what is offered
   */
  public List<Asked> asked(Map<String, List<String>> answers, Facts facts) {
    List<Asked> out = new ArrayList<>();
    Map<String, Set<String>> taken = new LinkedHashMap<>();
    for (Question q : questions) {
      if (q.onlyIf().isPresent() && !q.onlyIf().get().holds(facts, taken)) continue;
      Set<String> offered = offered(q, facts, taken);
      Set<String> chosen = new LinkedHashSet<>();
      List<String> given = answers.get(q.id());
      for (Answer a : q.answers())
        if (given == null ? offered.contains(a.id()) : given.contains(a.id())) chosen.add(a.id());
      taken.put(q.id(), chosen);
      out.add(new Asked(q, offered, chosen));
    }
    return out;
  }

  private static Set<String> offered(Question q, Facts facts, Map<String, Set<String>> taken) {
    Set<String> offered = new LinkedHashSet<>();
    for (Answer a : q.answers()) {
      boolean offers = a.offer().isPresent() && a.offer().get().holds(facts, taken);
      if (offers && offered.size() < q.max()) offered.add(a.id());
    }
    // for one of several with nothing offered, the first
    if (offered.isEmpty() && q.min() == 1 && q.max() == 1) offered.add(q.answers().get(0).id());
    return offered;
  }

  /** The files of all that was taken, in the order of the file: later ones win. */
  public List<Move> moves(List<Asked> asked) {
    List<Move> out = new ArrayList<>(inEveryCase);
    for (Asked a : asked)
      for (Answer answer : a.question().answers())
        if (a.taken().contains(answer.id())) out.addAll(answer.files());
    return out;
  }

  /** The answers taken, as they are kept. */
  public static Map<String, List<String>> answers(List<Asked> asked) {
    Map<String, List<String>> out = new LinkedHashMap<>();
    asked.forEach(a -> out.put(a.question().id(), List.copyOf(a.taken())));
    return out;
  }

  /** What every condition that asks something of the workspace says now, by its words. */
  public Map<String, Boolean> truths(Facts facts) {
    Map<String, Boolean> out = new LinkedHashMap<>();
    for (Condition c : outward()) out.put(c.words(), c.holds(facts, Map.of()));
    return out;
  }

  /** How people read the words by which {@link #truths} tells conditions apart. */
  public Map<String, String> spoken(UnaryOperator<String> nameOf) {
    Map<String, String> out = new LinkedHashMap<>();
    for (Condition c : outward()) out.put(c.words(), c.words(nameOf));
    return out;
  }

  private Set<Condition> outward() {
    Set<Condition> all = new LinkedHashSet<>();
    for (Question q : questions) {
      q.onlyIf().ifPresent(c -> c.outward(all));
      for (Answer a : q.answers()) a.offer().ifPresent(c -> c.outward(all));
    }
    return all;
  }

  /**
   * The answers that fit now, starting from those of another day: where what is offered is no
   * longer what was offered then, the answers follow; all others stay as the user gave them.
   */
  public Map<String, List<String>> renewed(
      Map<String, List<String>> answers, Facts then, Facts now) {
    Map<String, Set<String>> offeredThen = new LinkedHashMap<>();
    for (Asked a : asked(answers, then)) offeredThen.put(a.question().id(), a.offered());
    Map<String, List<String>> next = new LinkedHashMap<>();
    Map<String, Set<String>> taken = new LinkedHashMap<>();
    for (Question q : questions) {
      if (q.onlyIf().isPresent() && !q.onlyIf().get().holds(now, taken)) continue;
      Set<String> offered = offered(q, now, taken);
      Set<String> before = offeredThen.get(q.id());
      Set<String> chosen = new LinkedHashSet<>(answers.getOrDefault(q.id(), List.of()));
      if (before == null || !answers.containsKey(q.id())) chosen = new LinkedHashSet<>(offered);
      else if (!before.equals(offered)) {
        if (q.max() == 1) chosen = new LinkedHashSet<>(offered);
        else {
          for (String a : before) if (!offered.contains(a)) chosen.remove(a);
          for (String a : offered) if (!before.contains(a)) chosen.add(a);
        }
      }
      taken.put(q.id(), chosen);
      next.put(q.id(), List.copyOf(chosen));
    }
    return next;
  }

  /**
   * @throws IroningException naming every question whose answers will not do
   */
  public static void requireFit(String mod, List<Asked> asked) {
    List<Problem> amiss = new ArrayList<>();
    for (Asked a : asked)
      a.amiss()
          .ifPresent(
              why ->
                  amiss.add(
                      new Problem(
                          "answers-amiss",
                          a.question().ask(),
                          mod + ": " + a.taken().size() + " answers were taken.",
                          why)));
    if (!amiss.isEmpty()) throw new IroningException(amiss);
  }

  // ---- reading

  private static Fitting fitting(Section top) {
    if (top.has("format") && !top.text("format").orElse("").equals(FORMAT))
      top.reject("format", "the format is not " + FORMAT, "Write format: " + FORMAT + ".");
    top.required("format");
    List<Move> always = moves(top, "in-every-case");
    List<Question> questions = new ArrayList<>();
    Map<String, Set<String>> earlier = new LinkedHashMap<>();
    for (Section s : top.sections("questions")) {
      Question q = question(s, earlier);
      if (earlier.containsKey(q.id()))
        s.reject("id", "two questions are called “" + q.id() + "”", "Give each its own.");
      Set<String> ids = new LinkedHashSet<>();
      q.answers().forEach(a -> ids.add(a.id()));
      earlier.put(q.id(), ids);
      questions.add(q);
    }
    top.warnOfUnknownKeys();
    return new Fitting(List.copyOf(always), List.copyOf(questions));
  }

  private static Question question(Section s, Map<String, Set<String>> earlier) {
    String id = s.required("id");
    Optional<Condition> onlyIf = condition(s, "if", earlier);
    List<Answer> answers = new ArrayList<>();
    Set<String> ids = new LinkedHashSet<>();
    for (Section a : s.sections("answers")) {
      Answer answer = answer(a, earlier);
      if (!ids.add(answer.id()))
        a.reject("id", "two answers are called “" + answer.id() + "”", "Give each its own.");
      answers.add(answer);
    }
    if (answers.isEmpty())
      s.reject("answers", "a question needs an answer", "Add one, or take the question out.");
    int min = 0, max = answers.size();
    Optional<Section> take = s.section("take");
    if (take.isPresent()) {
      min = take.get().number("min", 0);
      max = take.get().number("max", answers.size());
      take.get().warnOfUnknownKeys();
      if (min < 0 || min > max || max > answers.size() || max < 1)
        s.reject(
            "take",
            "of " + answers.size() + " answers nobody can take " + min + " to " + max,
            "Write how many answers may be taken, such as { min: 1, max: 1 }.");
    }
    Question q =
        new Question(
            id,
            s.text("chapter").orElse(""),
            s.required("ask"),
            onlyIf,
            min,
            max,
            List.copyOf(answers));
    s.warnOfUnknownKeys();
    return q;
  }

  private static Answer answer(Section s, Map<String, Set<String>> earlier) {
    Optional<Condition> offer = Optional.empty();
    if (s.isText("offer")) {
      String word = s.text("offer").orElse("");
      if (word.equals("true")) offer = Optional.of(new Condition.All(List.of()));
      else if (word.equals("false")) offer = Optional.of(new Condition.Any(List.of()));
      else s.reject("offer", "“" + word + "” is no offer", "Write true, false or a condition.");
    } else offer = condition(s, "offer", earlier);
    Answer a =
        new Answer(
            s.required("id"),
            s.required("say"),
            s.text("about").orElse(""),
            s.text("image"),
            s.text("cost").orElse(""),
            offer,
            moves(s, "files"));
    s.warnOfUnknownKeys();
    return a;
  }

  private static Optional<Condition> condition(
      Section s, String key, Map<String, Set<String>> earlier) {
    Optional<Condition> c = s.section(key).map(Condition::read);
    c.ifPresent(known -> checkAnswers(s, key, known, earlier));
    return c;
  }

  private static void checkAnswers(
      Section s, String key, Condition c, Map<String, Set<String>> earlier) {
    if (c instanceof Condition.All all) all.of().forEach(p -> checkAnswers(s, key, p, earlier));
    else if (c instanceof Condition.Any any)
      any.of().forEach(p -> checkAnswers(s, key, p, earlier));
    else if (c instanceof Condition.Not not) checkAnswers(s, key, not.of(), earlier);
    else if (c instanceof Condition.Answered a
        && !earlier.getOrDefault(a.question(), Set.of()).contains(a.answer()))
      s.reject(
          key,
          "no earlier question has the answer “" + a.question() + "/" + a.answer() + "”",
          "Name an answer of a question that stands above.");
  }

  private static List<Move> moves(Section s, String key) {
    List<Move> out = new ArrayList<>();
    for (Section m : s.sections(key)) {
      out.add(new Move(path(m, "from"), path(m, "to"), m.text("mount"), m.place()));
      m.warnOfUnknownKeys();
    }
    return out;
  }

  // "" and "./" are the folder itself
  private static String path(Section s, String key) {
    String text = key.equals("to") ? s.text(key).orElse("") : s.required(key);
    String clean = text.equals(".") || text.equals("./") ? "" : text.replaceFirst("^\\./", "");
    String bare = clean.endsWith("/") ? clean.substring(0, clean.length() - 1) : clean;
    String why = bare.isEmpty() ? null : GamePath.whyUnsafe(bare);
    if (why != null)
      s.reject(key, "“" + text + "” cannot be used: " + why, "Write a plain relative path.");
    return clean;
  }
}
