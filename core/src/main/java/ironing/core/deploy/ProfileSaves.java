package ironing.core.deploy;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.path.GamePath;
import ironing.core.path.GameRoots;
import ironing.core.path.PatternWalk;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * Lets each profile have saves of its own, where a game's definition says so: those of one profile
 * lie in the game folder and the places beside it, those of the others in {@code saves} of what
 * Ironing keeps there, each profile's in a folder of its own. A save is never copied over another
 * and never removed.
 *
 * <p>Idea: a mark tells whose saves lie in the folder. To change them it says first that all that
 * lies there is on its way out, and once it is out that the others are on their way in. Each half
 * can be done again from any place at which a crash has left it, for until the mark says otherwise
 * all that lies in the folder belongs to one of the two.
 *
 * <p>Cost: a rename a save, and one walk of the folders in which saves can lie. Threads: one at a
 * time for a folder, and not while the game runs; the caller sees to both.
 */
public final class ProfileSaves {
  static final String HOME = Deployer.HOME + "/saves";
  static final String MARK = HOME + "/whose.json";

  /** Copies on their way; not the staging of a deployment, which may hold what it moved aside. */
  private static final String COMING = "coming";

  static final String FORMAT = "ironing/saves@1";
  private static final String SAVES = "/saves";
  private static final ObjectMapper JSON = new ObjectMapper();
  private final Disk disk;
  private final GameRoots roots;
  private final GameDefinition game;

  public ProfileSaves(Disk disk, GameRoots roots, GameDefinition game) {
    this.disk = disk;
    this.roots = roots;
    this.game = game;
  }

  /** How far a change of whose saves lie in the folder has come. */
  private enum Half {
    OUT,
    IN,
    DONE
  }

  /**
   * @param whose what lies in the folder, or is on its way out of it
   * @param next whose saves come in; the same when it is done
   */
  private record Mark(String whose, String next, Half half) {}

  /**
   * Whose saves lie in the folder: a key that {@link #bring} was given. Empty where nobody has said
   * so yet.
   */
  public Optional<String> whose() {
    try {
      return mark().map(m -> m.half == Half.OUT ? m.whose : m.next);
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  /**
   * The saves of one profile.
   *
   * @param first whose the saves are that lie there while nobody has said so
   * @return where each lies, by its path in the game
   */
  public List<Save> of(String key, String first) {
    try {
      boolean here = whose().orElse(first).equals(key);
      List<Save> all = new ArrayList<>();
      for (String top : roots.tops()) {
        Path root = here ? at(top) : kept(top, key);
        for (String p : paths(top, root)) all.add(new Save(p, roots.under(root, p)));
      }
      return List.copyOf(all);
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  /**
   * @param path in the game
   * @param lies where it is now
   */
  public record Save(String path, Path lies) {}

  /**
   * Puts the saves of one profile into the folder, and those that lie there to where they are kept.
   *
   * @param key whose are to come: a name for a folder
   * @param first whose the saves are that lie there while nobody has said so
   * @param now RFC 3339
   * @throws IroningException with code {@code game-folder-leads-outside} where saves lie behind a
   *     link; nothing is moved then
   */
  public void bring(String key, String first, String now) {
    try {
      Mark mark = mark().orElse(new Mark(first, first, Half.DONE));
      if (mark.half != Half.DONE) finish(mark, now);
      String whose = mark.next;
      if (whose.equals(key)) return;
      // before anything is written
      requireInside();
      Mark out = new Mark(whose, key, Half.OUT);
      write(out);
      try {
        finish(out, now);
      } catch (IOException refused) {
        takeBack(out, now, refused);
        throw refused;
      }
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  /** To call before anything else asks for saves: finishes what a crash has left. */
  public void recover(String now) {
    try {
      Optional<Mark> mark = mark();
      if (mark.isPresent() && mark.get().half != Half.DONE) finish(mark.get(), now);
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  /**
   * Copies the saves of another profile, with their times, to those of one. What it has by the same
   * name stays.
   *
   * @param first as for {@link #bring}
   * @return how many were copied
   */
  public int copy(String from, String to, String first) {
    try {
      roots.requirePlaces();
      boolean here = whose().orElse(first).equals(to);
      Map<String, List<Save>> byTop = new TreeMap<>();
      for (Save s : of(from, first))
        byTop.computeIfAbsent(roots.top(s.path()), t -> new ArrayList<>()).add(s);
      int n = 0;
      for (Map.Entry<String, List<Save>> e : byTop.entrySet())
        n += copy(e.getKey(), e.getValue(), here ? at(e.getKey()) : kept(e.getKey(), to));
      return n;
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  private int copy(String top, List<Save> saves, Path root) throws IOException {
    Map<Path, Path> copies = new TreeMap<>();
    Path coming = kept(top, COMING);
    // a save is there as a whole or not at all
    makeInside(top, coming);
    disk.removeTree(coming);
    disk.createBelow(at(top), coming);
    try {
      for (Save s : saves) {
        Path target = roots.under(root, s.path());
        if (disk.exists(target)) continue;
        Path copy = coming.resolve(Integer.toString(copies.size()));
        disk.copy(s.lies(), copy);
        // by its time it is known of which day it is, and which run has written it
        Files.setLastModifiedTime(copy, Files.getLastModifiedTime(s.lies()));
        copies.put(target, copy);
      }
      disk.flushTree(coming);
      Set<Path> folders = new TreeSet<>();
      for (Map.Entry<Path, Path> c : copies.entrySet()) {
        makeInside(top, c.getKey().getParent());
        disk.move(c.getValue(), c.getKey());
        folders.add(c.getKey().getParent());
      }
      for (Path f : folders) flushUp(top, f);
    } finally {
      disk.removeTree(coming);
    }
    return copies.size();
  }

  // what went out comes in again: each way is one that a crash may cut short
  private void takeBack(Mark out, String now, IOException why) {
    try {
      boolean allOut = mark().filter(m -> m.half != Half.OUT).isPresent();
      Mark back =
          allOut
              ? new Mark(out.next, out.whose, Half.OUT)
              : new Mark(out.whose, out.whose, Half.IN);
      write(back);
      finish(back, now);
    } catch (IOException alsoFailed) {
      // the mark stays: the next try goes on from it
      why.addSuppressed(alsoFailed);
    }
  }

  private void finish(Mark mark, String now) throws IOException {
    // behind a link that was planted since there may be some that are still to go out
    requireInside();
    if (mark.half == Half.OUT) {
      for (String top : roots.tops()) move(top, at(top), kept(top, mark.whose), now);
      write(new Mark(mark.whose, mark.next, Half.IN));
    }
    for (String top : roots.tops()) move(top, kept(top, mark.next), at(top), now);
    write(new Mark(mark.next, mark.next, Half.DONE));
    for (String top : roots.tops()) {
      for (Path p : disk.below(kept(top, mark.next)))
        if (Files.isDirectory(p)) disk.deleteFolderIfEmpty(p);
      if (top.isEmpty()) continue;
      // of a place nothing of ours stays that is empty
      String home = roots.home(top);
      disk.deleteFolderIfEmpty(at(home + SAVES));
      disk.deleteFolderIfEmpty(at(home));
      disk.deleteFolderIfEmpty(at(GamePath.folder(home)));
    }
  }

  private void move(String top, Path from, Path to, String now) throws IOException {
    Set<Path> touched = new TreeSet<>();
    // those that take in are flushed first: a save is in one of the two at any time
    Set<Path> left = new TreeSet<>();
    for (String path : paths(top, from)) {
      Path source = roots.under(from, path), target = roots.under(to, path);
      // somebody put one there by hand: it is set aside, as what is changed in the folder is
      if (disk.exists(target)) {
        Path aside = at(Staging.freeAside(disk, roots, now, path));
        makeInside(top, aside.getParent());
        disk.move(target, aside);
        disk.flushFolder(aside.getParent());
      }
      makeInside(top, target.getParent());
      disk.move(source, target);
      left.add(source.getParent());
      touched.add(target.getParent());
    }
    for (Path f : touched) flushUp(top, f);
    for (Path f : left) disk.flushFolder(f);
  }

  // nothing is made or moved through a link that somebody has planted meanwhile
  private void makeInside(String top, Path in) throws IOException {
    Path there = in;
    while (!disk.exists(there)) there = there.getParent();
    if (!disk.isInside(at(top), there)) throw DiskTrouble.leadsOutside(there);
    disk.createBelow(at(top), in);
  }

  // a folder that was made is an entry of the one above
  private void flushUp(String top, Path from) throws IOException {
    for (Path f = from; f.startsWith(at(top)); f = f.getParent()) disk.flushFolder(f);
  }

  private void requireInside() throws IOException {
    roots.requirePlaces();
    for (String top : roots.tops()) {
      for (String path : paths(top, at(top))) {
        Path in = at(path).getParent();
        if (!disk.isInside(at(top), in)) throw DiskTrouble.leadsOutside(in);
      }
    }
    // a folder of saves that is a link is not gone into: what lies behind it would stay
    PatternWalk saves =
        new PatternWalk(
            game.perProfile().stream().filter(p -> game.isOwnSave(p.example())).toList(),
            game.pathCase());
    saves.files(
        roots,
        (path, place, a) -> {
          if (a.isSymbolicLink()
              && saves.leads(path)
              && Files.isDirectory(place)
              && !disk.isInside(roots.root(path), place)) throw DiskTrouble.leadsOutside(place);
        });
  }

  /** The saves below a folder, in the order of their paths. */
  private List<String> paths(String top, Path root) throws IOException {
    Set<String> found = new TreeSet<>();
    new PatternWalk(game.perProfile(), game.pathCase())
        .files(
            roots,
            top,
            root,
            (path, place, a) -> {
              if (a.isRegularFile() && game.isOwnSave(path)) found.add(path);
            });
    return new ArrayList<>(found);
  }

  private Optional<Mark> mark() throws IOException {
    if (!disk.exists(at(MARK))) return Optional.empty();
    byte[] utf8 = disk.read(at(MARK));
    try {
      JsonNode m = JSON.readTree(utf8);
      if (!FORMAT.equals(m.path("format").asText())) throw unreadable(null);
      return Optional.of(
          new Mark(
              GamePath.check(m.path("whose").asText()),
              GamePath.check(m.path("next").asText()),
              Half.valueOf(m.path("half").asText())));
    } catch (JsonProcessingException | IllegalArgumentException e) {
      throw unreadable(e);
    }
  }

  private IroningException unreadable(Throwable cause) {
    return IroningException.of(
        "saves-unreadable",
        at(MARK).toString(),
        "The mark that says whose saves lie in the game folder cannot be read.",
        "Look into "
            + HOME
            + ", where the saves of each profile are, put back what is missing, and remove this file.",
        cause);
  }

  private void write(Mark mark) throws IOException {
    ObjectNode m = JSON.createObjectNode();
    m.put("format", FORMAT);
    m.put("whose", mark.whose);
    m.put("next", mark.next);
    m.put("half", mark.half.name());
    makeInside("", at(HOME));
    disk.write(at(MARK + ".new"), JSON.writeValueAsBytes(m));
    disk.move(at(MARK + ".new"), at(MARK));
    disk.flushFolder(at(HOME));
    disk.flushFolder(at(Deployer.HOME));
    disk.flushFolder(roots.folder());
  }

  private Path at(String path) {
    return roots.at(path);
  }

  /** Where the saves of a profile are kept that lie below a top. */
  private Path kept(String top, String key) {
    return at(roots.home(top) + SAVES + "/" + key);
  }
}
