package ironing.server.game;

import ironing.core.IroningException;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.RealDisk;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.game.GameFolder;
import ironing.core.game.GameFolder.Packed;
import ironing.core.game.GameFolder.Seen;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.platform.Folders;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Makes workspaces. The unmodded game is hashed once here: it is layer 0, and what undeploying goes
 * back to.
 */
@Component
class Workspaces {
  private static final int ROWS_AT_ONCE = 2000;
  private final WorkspaceMapper db;
  private final TransactionTemplate transaction;
  private final Jobs jobs;

  Workspaces(WorkspaceMapper db, TransactionTemplate transaction, Jobs jobs) {
    this.db = db;
    this.transaction = transaction;
    this.jobs = jobs;
  }

  /**
   * Checks at once, then hashes in the background.
   *
   * @param definition the text of a game.yaml; empty to take the one in the folder
   * @throws IroningException when the folder or the definition is wrong; nothing was made then
   */
  Job make(String folderName, Optional<String> definition) {
    Path folder = Folders.named(folderName);
    Long known = db.idOf(folder.toString());
    if (known != null)
      throw IroningException.of(
          "already-there",
          folder.toString(),
          "This folder has a workspace already.",
          "Open workspace " + known + ".");
    String text = definition.filter(d -> !d.isBlank()).orElseGet(() -> definitionIn(folder));
    GameDefinition game = GameDefinitionReader.read("game.yaml", text).value();
    GameFolder.requireGame(game, folder);
    return jobs.start(
        0,
        "workspace",
        "Look at " + game.title(),
        progress -> {
          LaidOut laidOut = new Deployer(new RealDisk(), folder).laidOut();
          List<Seen> files = unmodded(folder, laidOut);
          progress.at(files.size(), files.size(), "files");
          List<Packed> packed = new ArrayList<>();
          for (Seen s : files)
            if (game.isPack(s.path()))
              packed.addAll(
                  GameFolder.packContent(game, s.path(), original(folder, laidOut, s.path())));
          return transaction.execute(t -> save(game, folder, text, files, packed));
        });
  }

  private long save(
      GameDefinition game, Path folder, String text, List<Seen> files, List<Packed> packed) {
    long id =
        db.add(
            game.title(), folder.toString(), text, GameFolder.version(game, folder).orElse(null));
    for (int i = 0; i < files.size(); i += ROWS_AT_ONCE)
      db.addFiles(id, files.subList(i, Math.min(files.size(), i + ROWS_AT_ONCE)));
    for (int i = 0; i < packed.size(); i += ROWS_AT_ONCE)
      db.addPacked(id, packed.subList(i, Math.min(packed.size(), i + ROWS_AT_ONCE)));
    db.addProfile(id, "Everyday");
    return id;
  }

  // What a forgotten workspace has deployed is not the game's: its note in the folder tells, and
  // the originals are kept there.
  private static List<Seen> unmodded(Path folder, LaidOut laidOut) throws IOException {
    List<Seen> files = new ArrayList<>();
    for (Seen s : GameFolder.scan(folder)) {
      LaidOut.Item item = laidOut.files().get(s.path());
      if (item == null) files.add(s);
      else if (item.replaced().isPresent())
        files.add(
            new Seen(
                s.path(),
                Files.size(original(folder, laidOut, s.path())),
                0,
                item.replaced().get()));
    }
    return files;
  }

  private static Path original(Path folder, LaidOut laidOut, String path) {
    LaidOut.Item item = laidOut.files().get(path);
    return item != null && item.replaced().isPresent()
        ? folder.resolve(".ironing/kept").resolve(path)
        : folder.resolve(path);
  }

  private static String definitionIn(Path folder) {
    Path file = folder.resolve(GameFolder.DEFINITION);
    try {
      return Files.readString(file);
    } catch (IOException e) {
      throw IroningException.of(
          "definition-missing",
          file.toString(),
          "The folder has no game.yaml that can be read.",
          "Give a definition of the game: say where mods go in it.");
    }
  }

  List<WorkspaceMapper.Row> all() {
    return db.all();
  }
}
