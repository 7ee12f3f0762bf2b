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
import java.util.ArrayList;
import java.util.Comparator;
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
