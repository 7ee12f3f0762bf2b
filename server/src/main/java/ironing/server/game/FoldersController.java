package ironing.server.game;

import ironing.server.game.ServerFolders.Listing;
import ironing.server.game.ServerFolders.Search;
import ironing.server.platform.MayBeAbsent;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Choosing a folder on the machine where Ironing runs. */
@RestController
@RequestMapping("/api/folders")
class FoldersController {
  private final ServerFolders folders;

  FoldersController(ServerFolders folders) {
    this.folders = folders;
  }

  /**
   * @param game the title of the game that it is; absent where it is none that is known
   */
  record InnerFolder(String name, String path, @MayBeAbsent String game) {}

  /**
   * @param above the folder that it lies in; absent for the root
   * @param inAll how many folders it has, of which the first are given
   */
  record FolderListing(
      String path,
      @MayBeAbsent String above,
      @MayBeAbsent String game,
      int inAll,
      List<InnerFolder> folders) {}

  /** The folders within one, without a path those of the user's home; hidden ones aside. */
  @GetMapping
  FolderListing folders(@RequestParam(required = false) String path) {
    Listing l = folders.list(Optional.ofNullable(path).filter(p -> !p.isBlank()));
    return new FolderListing(
        l.folder().toString(),
        l.above().map(Path::toString).orElse(null),
        l.game().orElse(null),
        l.inAll(),
        l.inner().stream()
            .map(i -> new InnerFolder(i.name(), i.path().toString(), i.game().orElse(null)))
            .toList());
  }

  /**
   * @param title of the game
   * @param workspace that it has already; absent where it has none
   */
  record FoundGame(String path, String title, @MayBeAbsent Long workspace) {}

  /**
   * @param below the folder in which games were looked for
   * @param games those that were found, the nearest first
   * @param folders how many folders were looked into
   * @param whole whether there was time for all of them
   */
  record GamesBelow(String below, List<FoundGame> games, int folders, boolean whole) {}

  /**
   * The games below a folder, a few folders deep; of those that their definition tells.
   *
   * @param below a full path
   */
  @GetMapping("/games")
  GamesBelow games(@RequestParam String below) {
    Search s = folders.games(below);
    return new GamesBelow(
        s.below().toString(),
        s.games().stream()
            .map(g -> new FoundGame(g.path().toString(), g.title(), g.workspace().orElse(null)))
            .toList(),
        s.folders(),
        s.whole());
  }
}
