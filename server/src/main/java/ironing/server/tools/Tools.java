package ironing.server.tools;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import ironing.server.deploy.ToolWrites;
import ironing.server.platform.Folders;
import ironing.server.platform.Json;
import ironing.server.tools.ToolMapper.ToolRow;
import ironing.server.workspace.OpenWorkspace;
import java.io.File;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;

/** The tools of a workspace, and what their placeholders stand for. */
@Component
public class Tools implements ToolWrites {
  /** The folder of its own that a tool may write to instead of the game's. */
  static final String OUTPUT = "output";

  private static final List<String> PLACES = List.of("game", OUTPUT, "standins");
  private static final Pattern PLACEHOLDER = Pattern.compile("\\{([a-z]+)\\}");
  private static final Pattern VARIABLE = Pattern.compile("[A-Za-z_][A-Za-z0-9_]*");
  private static final int LONGEST_NAME = 80;
  private final ToolMapper db;
  private final Folders folders;
  private final Json json;

  Tools(ToolMapper db, Folders folders, Json json) {
    this.db = db;
    this.folders = folders;
    this.json = json;
  }

  public List<Tool> all(long workspace) {
    return db.all(workspace).stream().map(this::tool).toList();
  }

  private Tool tool(ToolRow r) {
    Map<String, String> environment = new TreeMap<>();
    for (Object e : json.read(r.environment(), Map.class).entrySet()) {
      Map.Entry<?, ?> entry = (Map.Entry<?, ?>) e;
      environment.put(entry.getKey().toString(), entry.getValue().toString());
    }
    return new Tool(
        r.id(),
        r.name(),
        List.of(json.read(r.command(), String[].class)),
        r.folder(),
        environment,
        List.of(json.read(r.reads(), String[].class)),
        List.of(json.read(r.writes(), String[].class)));
  }

  private ToolRow row(Tool t) {
    return new ToolRow(
        t.id(),
        t.name().strip(),
        json.write(t.command()),
        t.folder().strip(),
        json.write(t.environment()),
        json.write(t.reads()),
        json.write(t.writes()));
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  Tool require(long workspace, long tool) {
    return all(workspace).stream()
        .filter(t -> t.id() == tool)
        .findFirst()
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    "Tool " + tool,
                    "There is no such tool.",
                    "Choose one from the list of tools."));
  }

  /**
   * @throws IroningException with codes {@code tool-name}, {@code tool-command}, {@code
   *     tool-placeholder}, {@code tool-environment} or {@code tool-pattern}
   */
  long add(OpenWorkspace open, Tool wish) {
    check(open, wish);
    return db.add(open.workspace(), row(wish));
  }

  /** Like {@link #add}, for one that is there. */
  void change(OpenWorkspace open, Tool wish) {
    require(open.workspace(), wish.id());
    check(open, wish);
    db.change(open.workspace(), row(wish));
  }

  void remove(long workspace, long tool) {
    require(workspace, tool);
    db.remove(workspace, tool);
  }

  private void check(OpenWorkspace open, Tool t) {
    List<Problem> wrong = new ArrayList<>();
    String name = t.name().strip();
    if (name.isEmpty() || name.length() > LONGEST_NAME)
      wrong.add(
          new Problem(
              "tool-name",
              "Name",
              name.isEmpty() ? "It is empty." : "It is longer than " + LONGEST_NAME + " letters.",
              "Give the tool a short name."));
    for (Tool other : all(open.workspace()))
      if (other.id() != t.id() && other.name().equalsIgnoreCase(name))
        wrong.add(
            new Problem(
                "tool-name", name, "Another tool has this name.", "Give this one another name."));
    if (t.command().isEmpty() || t.command().get(0).isBlank())
      wrong.add(
          new Problem(
              "tool-command",
              "Program",
              "It is empty.",
              "Name the program as the first line, then each argument on one of its own."));
    List<String> texts = new ArrayList<>(t.command());
    texts.add(t.folder());
    texts.addAll(t.environment().values());
    for (String text : texts) placeholders(text, wrong);
    for (String variable : t.environment().keySet())
      if (!VARIABLE.matcher(variable).matches() || variable.startsWith("IRONING_"))
        wrong.add(
            new Problem(
                "tool-environment",
                variable.isEmpty() ? "Environment" : variable,
                "This cannot be the name of a variable.",
                "Use letters, digits and _, not beginning with a digit or with IRONING_."));
    List<String> patterns = new ArrayList<>(t.reads());
    patterns.addAll(t.writes());
    for (String p : patterns)
      if (p.isBlank() || p.startsWith("/") || List.of(p.split("/")).contains(".."))
        wrong.add(
            new Problem(
                "tool-pattern",
                p.isBlank() ? "Pattern" : p,
                "This is no pattern for paths in the game folder.",
                "Write it from the game folder on, such as data/*.plug or logs/."));
    if (!wrong.isEmpty()) throw new IroningException(wrong);
  }

  private static void placeholders(String text, List<Problem> wrong) {
    Matcher m = PLACEHOLDER.matcher(text);
    while (m.find())
      if (!PLACES.contains(m.group(1)))
        wrong.add(
            new Problem(
                "tool-placeholder",
                m.group(),
                "There is no such placeholder.",
                "There are {game}, {output} and {standins}."));
  }

  @Override
  public List<PathPattern> written(long workspace, PathCase pathCase) {
    List<String> all = new ArrayList<>();
    all(workspace).forEach(t -> all.addAll(t.writes()));
    return PathPattern.all(all, pathCase);
  }

  /**
   * What stands in the places of a tool's words.
   *
   * @param output the folder of its own for this run; what is in it counts as written to the game
   */
  Function<String, String> filling(OpenWorkspace open, Path output) {
    Map<String, String> places =
        Map.of(
            "game",
            open.gameFolder().toString(),
            OUTPUT,
            output.toString(),
            "standins",
            folders.standins());
    return text ->
        PLACEHOLDER
            .matcher(open.filled(text))
            .replaceAll(m -> Matcher.quoteReplacement(places.getOrDefault(m.group(1), m.group())));
  }

  /** Where a tool starts: the game folder where nothing else is said. */
  Path startFolder(OpenWorkspace open, Tool t, Path output) {
    String folder =
        filling(open, output).apply(t.folder().isBlank() ? "{game}" : t.folder().strip());
    try {
      return open.gameFolder().resolve(folder);
    } catch (InvalidPathException e) {
      return open.gameFolder();
    }
  }

  /**
   * Why the program itself cannot be started; empty when it can, as far as that can be seen.
   *
   * @return in words
   */
  Optional<String> missing(OpenWorkspace open, Tool t) {
    // a run's own folder is made when it begins
    Path output = folders.incoming(open.workspace());
    String program = filling(open, output).apply(t.command().get(0));
    try {
      boolean there;
      if (program.indexOf(File.separatorChar) >= 0)
        there = Files.isExecutable(startFolder(open, t, output).resolve(program));
      else there = onPath(program);
      if (!there) return Optional.of("The program " + program + " is not there.");
      Path folder = startFolder(open, t, output);
      boolean own = folder.startsWith(output);
      if (!own && !Files.isDirectory(folder))
        return Optional.of("The folder " + folder + " is not there.");
    } catch (InvalidPathException e) {
      return Optional.of("“" + program + "” is no name of a program.");
    }
    return Optional.empty();
  }

  private static boolean onPath(String program) {
    for (String folder : System.getenv().getOrDefault("PATH", "").split(File.pathSeparator))
      if (!folder.isEmpty() && Files.isExecutable(Path.of(folder, program))) return true;
    return false;
  }

  /** The last run of each tool. */
  List<ToolMapper.ToolRunRow> lastRuns(long workspace) {
    return db.last(workspace);
  }

  /** The newest first. */
  List<ToolMapper.ToolRunRow> runs(long workspace, long tool) {
    return db.runs(workspace, tool);
  }

  /** One run; null where there is none. */
  ToolMapper.ToolRunRow run(long workspace, long run) {
    return db.run(workspace, run);
  }
}
