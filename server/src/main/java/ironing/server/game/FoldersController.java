package ironing.server.game;

import ironing.server.game.ServerFolders.Listing;
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
}
