package ironing.server.game;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.game.GameFolder;
import ironing.server.platform.Folders;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/**
 * The folders of the machine where Ironing runs, for choosing one; a game is told by its
 * definition.
 */
@Component
class ServerFolders {
  private static final int SHOWN = 1_000;
  private static final int LONGEST_DEFINITION = 1 << 20;
  private static final int DEEPEST = 4;
  private static final int MOST_FOLDERS = 20_000;
  private static final Duration LONGEST_SEARCH = Duration.ofSeconds(4);
  private final WorkspaceMapper db;

  ServerFolders(WorkspaceMapper db) {
    this.db = db;
  }

  /**
   * A folder within another.
   *
   * @param game the title of the game that it is; empty where it is none that is known
   */
  record Inner(String name, Path path, Optional<String> game) {}

  /**
   * @param inAll how many there are, of which the first are given
   */
  record Listing(
      Path folder, Optional<Path> above, Optional<String> game, int inAll, List<Inner> inner) {}

  /**
   * Lists a folder: those in it by name, hidden ones aside.
   *
   * @param name a full path; empty for the home folder
   * @throws IroningException with code {@code folder-wrong}
   */
  Listing list(Optional<String> name) {
    Path folder = Folders.named(name.orElse(System.getProperty("user.home", "/")));
    List<GameDefinition> known = known();
    List<Path> all = new ArrayList<>();
    try (Stream<Path> there = Files.list(folder)) {
      there
          .filter(p -> Files.isDirectory(p) && !p.getFileName().toString().startsWith("."))
          .forEach(all::add);
    } catch (IOException | UncheckedIOException e) {
      throw IroningException.of(
          "folder-wrong",
          folder.toString(),
          "This folder cannot be opened.",
          "See whether you may read it.",
          e);
    }
    all.sort(Comparator.comparing(p -> p.getFileName().toString(), String.CASE_INSENSITIVE_ORDER));
    return new Listing(
        folder,
        Optional.ofNullable(folder.getParent()),
        game(folder, known),
        all.size(),
        all.stream()
            .limit(SHOWN)
            .map(p -> new Inner(p.getFileName().toString(), p, game(p, known)))
            .toList());
  }

  /**
   * A game that was found.
   *
   * @param workspace that it has already; empty where it has none
   */
  record Found(Path path, String title, Optional<Long> workspace) {}

  /**
   * @param folders how many folders were looked into
   * @param whole whether there is no other folder to look into, as deep as is looked
   */
  record Search(Path below, List<Found> games, int folders, boolean whole) {}

  /**
   * The games below a folder: hidden folders and links aside, at most {@value #DEEPEST} folders
   * deep, the nearest first. A game is not looked into further. It ends after a while, and says so.
   *
   * @param name a full path
   * @throws IroningException with code {@code folder-wrong}
   */
  Search games(String name) {
    Path below = Folders.named(name);
    List<GameDefinition> known = known();
    long until = System.nanoTime() + LONGEST_SEARCH.toNanos();
    List<Found> games = new ArrayList<>();
    Deque<Path> next = new ArrayDeque<>(List.of(below));
    int looked = 0;
    while (!next.isEmpty() && looked < MOST_FOLDERS && System.nanoTime() < until) {
      Path folder = next.remove();
      looked++;
      Optional<String> title = game(folder, known);
      if (title.isPresent()) {
        games.add(new Found(folder, title.get(), Optional.ofNullable(db.idOf(folder.toString()))));
      } else if (below.relativize(folder).getNameCount() < DEEPEST || folder.equals(below)) {
        next.addAll(foldersIn(folder));
      }
    }
    return new Search(below, games, looked, next.isEmpty());
  }

  private static List<Path> foldersIn(Path folder) {
    try (Stream<Path> there = Files.list(folder)) {
      return there
          .filter(p -> Files.isDirectory(p, LinkOption.NOFOLLOW_LINKS))
          .filter(p -> !p.getFileName().toString().startsWith("."))
          .sorted()
          .toList();
    } catch (IOException | UncheckedIOException closed) {
      // what may not be read has no game that could be modded
      return List.of();
    }
  }

  /** The games that have a workspace: another copy of one is known by its definition. */
  private List<GameDefinition> known() {
    List<GameDefinition> all = new ArrayList<>();
    for (String text : db.definitions()) {
      GameDefinition game = GameDefinitionReader.read("a definition", text).value();
      if (!game.detect().isEmpty()) all.add(game);
    }
    return all;
  }

  private static Optional<String> game(Path folder, List<GameDefinition> known) {
    Optional<GameDefinition> own = own(folder);
    if (own.isPresent()) return own.map(GameDefinition::title);
    return known.stream().filter(g -> isGame(g, folder)).map(GameDefinition::title).findFirst();
  }

  private static Optional<GameDefinition> own(Path folder) {
    Path file = folder.resolve(GameFolder.DEFINITION);
    try {
      if (!Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)
          || Files.size(file) > LONGEST_DEFINITION) return Optional.empty();
      String text = new String(Files.readAllBytes(file), StandardCharsets.UTF_8);
      GameDefinition game = GameDefinitionReader.read(file.toString(), text).value();
      return isGame(game, folder) ? Optional.of(game) : Optional.empty();
    } catch (IOException | IroningException noDefinition) {
      return Optional.empty();
    }
  }

  private static boolean isGame(GameDefinition game, Path folder) {
    try {
      GameFolder.requireGame(game, folder);
      return true;
    } catch (IroningException another) {
      return false;
    }
  }
}
