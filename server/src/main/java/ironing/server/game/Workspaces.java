package ironing.server.game;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.FolderLock;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.Neighbours;
import ironing.core.deploy.RealDisk;
import ironing.core.documents.DefinitionProposal;
import ironing.core.drift.Drift.Own;
import ironing.core.format.PluginFormats;
import ironing.core.game.DefinitionPreview;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.game.GameFolder;
import ironing.core.game.GameFolder.Packed;
import ironing.core.game.GameFolder.Seen;
import ironing.core.game.Manifest;
import ironing.core.path.GameRoots;
import ironing.core.yaml.YamlDocument;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.platform.Folders;
import ironing.server.workspace.GameFiles;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Makes workspaces. The unmodded game is hashed once here: it is layer 0, and what undeploying goes
 * back to.
 */
@Component
class Workspaces {
  private static final String FIRST_PROFILE = "Everyday";
  private final WorkspaceMapper db;
  private final GameFiles own;
  private final Places places;
  private final PluginFormats formats;
  private final TransactionTemplate transaction;
  private final Jobs jobs;

  Workspaces(
      WorkspaceMapper db,
      GameFiles own,
      Places places,
      PluginFormats formats,
      TransactionTemplate transaction,
      Jobs jobs) {
    this.db = db;
    this.own = own;
    this.places = places;
    this.formats = formats;
    this.transaction = transaction;
    this.jobs = jobs;
  }

  /** A folder and the definition that is to describe it, both found sound. */
  private record Candidate(
      GameRoots roots, String text, GameDefinition game, List<Problem> warnings) {
    Path folder() {
      return roots.folder();
    }
  }

  /**
   * What would become of a folder.
   *
   * @param workspace the workspace that it has already
   * @param places of the game, with where they are as far as that is known
   * @param definition the text that would be used
   * @param preview what the definition matches there
   */
  record Look(
      String folder,
      String title,
      Optional<String> version,
      String definition,
      boolean itsOwn,
      List<Problem> warnings,
      DefinitionPreview preview,
      List<Places.Offer> places,
      Optional<Long> workspace) {}

  /**
   * Looks without making anything.
   *
   * @param definition the text of a game.yaml; empty to take the one in the folder
   * @param named folders of places, by their ids
   * @throws IroningException for everything that {@link #make} would refuse, but a workspace that
   *     is there already, and places that are not known yet
   */
  Look look(String folderName, Optional<String> definition, Map<String, String> named) {
    Candidate c = candidate(folderName, definition, named);
    DocumentsFound found =
        DocumentsFound.in(c.game(), unmodded(c), path -> Files.readAllBytes(c.roots().at(path)));
    List<Problem> warnings = warnings(c);
    warnings.addAll(found.warnings());
    return new Look(
        c.folder().toString(),
        c.game().title(),
        version(c),
        c.text(),
        definition.isEmpty(),
        warnings,
        preview(c).with(found.parts()),
        places.offers(c.game(), c.folder()),
        Optional.ofNullable(db.idOf(c.folder().toString())));
  }

  /**
   * A first definition of a game whose mods are folders of open text, by what lies in its folder;
   * empty where nothing looks so.
   *
   * @throws IroningException when there is no such folder
   */
  static Optional<DefinitionProposal> propose(String folderName) {
    Path folder = Folders.named(folderName);
    Set<String> paths = new TreeSet<>(GameFolder.glance(GameRoots.of(folder)).keySet());
    // what Ironing notes there, and a definition that was begun, say nothing of the game
    paths.removeIf(p -> p.startsWith(".ironing/") || p.equals(GameFolder.DEFINITION));
    return DefinitionProposal.of(
        folder.getFileName() == null ? "My game" : folder.getFileName().toString(),
        paths,
        path -> Files.readAllBytes(folder.resolve(path)));
  }

  private static List<Problem> warnings(Candidate c) {
    List<Problem> all = new ArrayList<>(c.warnings());
    all.addAll(GameFolder.unusable(c.roots()));
    return all;
  }

  private static List<String> unmodded(Candidate c) {
    return unmodded(c, new Deployer(new RealDisk(), c.folder()).laidOut());
  }

  private static List<String> unmodded(Candidate c, LaidOut laidOut) {
    List<String> there = new ArrayList<>(GameFolder.glance(c.roots()).keySet());
    there.removeAll(Neighbours.files(c.roots()));
    there.removeIf(
        path ->
            laidOut.files().containsKey(path) && laidOut.files().get(path).replaced().isEmpty());
    return there;
  }

  private static DefinitionPreview preview(Candidate c) {
    LaidOut laidOut = new Deployer(new RealDisk(), c.folder()).laidOut();
    return DefinitionPreview.of(c.game(), unmodded(c, laidOut), manifest(c, laidOut));
  }

  private static Optional<Manifest> manifest(Candidate c, LaidOut laidOut) {
    return Manifest.of(c.game(), path -> original(c.roots(), laidOut, path));
  }

  /**
   * Checks at once, then hashes in the background.
   *
   * @param apart whether files that the game’s manifest does not name are kept apart: they are none
   *     of the unmodded game then, and can become a mod
   * @throws IroningException when the folder or the definition is wrong; nothing was made then
   */
  Job make(
      String folderName, Optional<String> definition, Map<String, String> named, boolean apart) {
    Candidate c = candidate(folderName, definition, named);
    Long known = db.idOf(c.folder().toString());
    if (known != null) {
      throw IroningException.of(
          "already-there",
          c.folder().toString(),
          "This folder has a workspace already.",
          "Open workspace " + known + ".");
    }
    for (WorkspaceMapper.Row w : db.all()) {
      Path other = Path.of(w.gameFolder());
      if (!other.startsWith(c.folder()) && !c.folder().startsWith(other)) continue;
      throw IroningException.of(
          "folders-nested",
          c.folder().toString(),
          "It "
              + (other.startsWith(c.folder()) ? "holds" : "lies in")
              + " the game folder of “"
              + w.title()
              + "”: "
              + other
              + ".",
          "Choose a folder that has no part in common with the games that are here.");
    }
    places.settled(c.game(), c.folder(), Map.of(), named, Optional.empty());
    return jobs.start(
        0, Lane.ADOPT, "workspace", "Look at " + c.game().title(), p -> adopt(c, apart, p));
  }

  private Candidate candidate(
      String folderName, Optional<String> definition, Map<String, String> named) {
    Path folder = Folders.named(folderName);
    boolean given = definition.isPresent() && !definition.get().isBlank();
    String text = given ? definition.get() : definitionIn(folder);
    String name = given ? "the definition" : folder.resolve(GameFolder.DEFINITION).toString();
    YamlDocument.Read<GameDefinition> read = GameDefinitionReader.read(name, text);
    GameFolder.requireGame(read.value(), folder);
    formats.check(read.value());
    return new Candidate(
        places.known(read.value(), folder, Map.of(), named), text, read.value(), read.warnings());
  }

  private long adopt(Candidate c, boolean apart, Jobs.Progress progress) throws IOException {
    LaidOut laidOut = recovered(c.roots());
    int total = GameFolder.glance(c.roots()).size();
    List<Own> files =
        unmodded(
            c.roots(), laidOut, GameFolder.scan(c.roots(), n -> progress.at(n, total, "files")));
    Optional<Manifest> manifest = apart ? manifest(c, laidOut) : Optional.empty();
    manifest.ifPresent(m -> files.removeIf(s -> DefinitionPreview.isBeside(c.game(), m, s.path())));
    List<Packed> packed = new ArrayList<>();
    for (Own s : files) {
      if (!c.game().isPack(s.path())) continue;
      Path file = original(c.roots(), laidOut, s.path());
      packed.addAll(GameFolder.packContent(c.game(), s.path(), file));
    }
    return transaction.execute(t -> save(c, files, packed));
  }

  // what a crash of whoever had it before left half done there
  private static LaidOut recovered(GameRoots roots) {
    Optional<FolderLock> lock = FolderLock.take(roots.folder());
    try {
      Deployer deployer = new Deployer(new RealDisk(), roots, Optional.empty());
      deployer.recover();
      return deployer.laidOut();
    } finally {
      lock.ifPresent(FolderLock::close);
    }
  }

  private long save(Candidate c, List<Own> files, List<Packed> packed) {
    String version = version(c).orElse(null);
    long id = db.add(c.game().title(), c.folder().toString(), c.text(), version);
    places.keep(id, c.roots());
    own.add(id, files, packed);
    db.addProfile(id, FIRST_PROFILE);
    return id;
  }

  // What a forgotten workspace has deployed is not the game's: its note in the folder tells, and
  // the originals are kept there.
  static List<Own> unmodded(GameRoots roots, LaidOut laidOut, List<Seen> there) throws IOException {
    List<Own> files = new ArrayList<>();
    Set<String> others = Neighbours.files(roots);
    for (Seen s : there) {
      if (others.contains(s.path())) continue;
      LaidOut.Item item = laidOut.files().get(s.path());
      if (item == null) files.add(new Own(s.path(), s.sizeBytes(), s.modifiedMillis(), s.sha256()));
      else if (item.replaced().isPresent()) {
        Path kept = original(roots, laidOut, s.path());
        long modified = Files.getLastModifiedTime(kept).toMillis();
        files.add(new Own(s.path(), Files.size(kept), modified, item.replaced().get()));
      }
    }
    return files;
  }

  private static Optional<String> version(Candidate c) {
    // of a file in a place that is not known yet nothing can be told
    return GameFolder.version(c.game(), c.roots()::at);
  }

  private static Path original(GameRoots roots, LaidOut laidOut, String path) {
    LaidOut.Item item = laidOut.files().get(path);
    boolean kept = item != null && item.replaced().isPresent();
    return kept ? Deployer.keptOriginal(roots, path) : roots.at(path);
  }

  private static String definitionIn(Path folder) {
    Path file = folder.resolve(GameFolder.DEFINITION);
    try {
      return new String(Files.readAllBytes(file), StandardCharsets.UTF_8);
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
