package ironing.standins.game;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The game's small scripts: routines that say things and call one another. */
final class Scripts {
  private static final Pattern LINE =
      Pattern.compile("^\\s*(routine|call|say|end)\\b\\s*(.*?)\\s*$");

  private record Routine(String name, String path, List<String[]> steps) {}

  private final Map<String, Routine> routines = new LinkedHashMap<>();

  Scripts(List<DataFiles.Entry> files) {
    for (DataFiles.Entry f : files) parse(f);
    for (Routine r : routines.values()) {
      for (String[] step : r.steps()) {
        if (step[0].equals("call") && !routines.containsKey(step[1])) {
          throw new GameFault(
              "routine-missing",
              "The script "
                  + r.path()
                  + " calls the routine “"
                  + step[1]
                  + "”, which no script defines.",
              r.path(),
              null,
              null);
        }
      }
    }
  }

  private void parse(DataFiles.Entry f) {
    Routine open = null;
    int number = 0;
    for (String line : DataFiles.text(f).split("\r?\n", -1)) {
      number++;
      if (line.isBlank() || line.stripLeading().startsWith("#")) continue;
      Matcher m = LINE.matcher(line);
      if (!m.matches() || (open == null) != m.group(1).equals("routine")) {
        throw new GameFault(
            "script-broken",
            "Line " + number + " of " + f.path() + " makes no sense: “" + line.strip() + "”.",
            f.path(),
            null,
            null);
      }
      switch (m.group(1)) {
        case "routine" -> {
          open = new Routine(m.group(2), f.path(), new ArrayList<>());
          Routine twin = routines.put(open.name(), open);
          if (twin != null)
            throw new GameFault(
                "routine-twice",
                "The routine “"
                    + open.name()
                    + "” is defined in "
                    + twin.path()
                    + " and in "
                    + f.path()
                    + ".",
                f.path(),
                null,
                null);
        }
        case "end" -> open = null;
        default -> open.steps().add(new String[] {m.group(1), m.group(2)});
      }
    }
    if (open != null)
      throw new GameFault(
          "script-broken",
          "The routine “" + open.name() + "” in " + f.path() + " has no end.",
          f.path(),
          null,
          null);
  }

  /**
   * Everything that a routine says, in order. A routine that calls itself stops after a while, as a
   * game would.
   */
  List<String> play(String name) {
    List<String> said = new ArrayList<>();
    if (routines.containsKey(name)) play(name, said, 0);
    return said;
  }

  private void play(String name, List<String> said, int depth) {
    Routine r = routines.get(name);
    if (depth > 50)
      throw new GameFault(
          "script-endless", "The routine “" + name + "” never ends.", r.path(), null, null);
    for (String[] step : r.steps()) {
      if (step[0].equals("say")) said.add(step[1]);
      else play(step[1], said, depth + 1);
    }
  }
}
