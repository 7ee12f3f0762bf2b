package ironing.server.deploy;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan.Found;
import ironing.core.deploy.DeployPlan.Look;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.Disk;
import ironing.core.deploy.DiskTrouble;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.RealDisk;
import ironing.core.deploy.WantedFiles.Setting;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.path.GamePath;
import ironing.core.path.PatternWalk;
import ironing.server.deploy.ProfileSettingsMapper.SettingRow;
import ironing.server.workspace.OpenWorkspace;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Each profile's own copies of the files that a game's definition calls {@code perProfile}. The
 * game changes them where they lie, so before anything is deployed or taken out, what lies there is
 * kept for the profile that it belongs to.
 */
@Component
class ProfileSettings {
  /** Larger ones are no settings. In bytes. */
  private static final int LARGEST = 16 << 20;

  private final Disk disk = new RealDisk();
  private final ProfileSettingsMapper db;
  private final TransactionTemplate transaction;

  ProfileSettings(ProfileSettingsMapper db, TransactionTemplate transaction) {
    this.db = db;
    this.transaction = transaction;
  }

  List<Setting> of(long profile) {
    return db.all(profile).stream().map(r -> new Setting(r.path(), r.content())).toList();
  }

  int copies(OpenWorkspace open) {
    return db.profiles(open.workspace()).stream().mapToInt(p -> db.all(p).size()).sum();
  }

  /** Below {@code .ironing/settings/}, each profile's in a folder of its number. */
  void writeCopies(OpenWorkspace open) {
    Path home = open.gameFolder().resolve(Deployer.HOME).resolve("settings");
    try {
      for (long profile : db.profiles(open.workspace())) {
        for (SettingRow r : db.all(profile)) {
          Path file = GamePath.resolve(home.resolve("profile-" + profile), r.path());
          disk.createFolders(file.getParent());
          Files.write(file, r.content());
        }
      }
      if (Files.isDirectory(home)) disk.flushTree(home);
    } catch (IOException e) {
      throw DiskTrouble.of(open.gameFolder(), e);
    }
  }

  /**
   * Keeps what lies in the game folder. With nothing deployed, a file that the user has changed
   * since the workspace was made is where every profile starts that has no copy yet.
   */
  void keep(OpenWorkspace open, LaidOut laidOut) {
    if (open.game().perProfile().isEmpty()) return;
    Map<String, byte[]> there = there(open);
    transaction.executeWithoutResult(
        t -> {
          if (laidOut.files().isEmpty()) seed(open, there);
          else owner(open, laidOut).ifPresent(p -> take(open, p, laidOut, there));
        });
  }

  /**
   * Whose settings lie in the game folder; empty where the note does not say, as those from before
   * there were any, or names a profile of another database.
   */
  private Optional<Long> owner(OpenWorkspace open, LaidOut laidOut) {
    return laidOut.profile().filter(db.profiles(open.workspace())::contains);
  }

  private void seed(OpenWorkspace open, Map<String, byte[]> there) {
    there.forEach(
        (path, content) -> {
          if (!isStartingPoint(open, path, content)) return;
          for (long profile : db.profiles(open.workspace()))
            if (copies(open, profile).get(key(open, path)) == null)
              db.put(profile, path, ContentHash.of(content), content);
        });
  }

  // what a mod brings is not hidden behind the game's own file
  private static boolean isStartingPoint(OpenWorkspace open, String path, byte[] content) {
    Holdings holdings = open.picture().holdings();
    int id = holdings.idOf(path);
    int slot = id < 0 ? -1 : open.picture().standing().inPlay(id);
    if (slot < 0) return true;
    return holdings.holderAt(slot).mod() == Holdings.GAME
        && !holdings.shaAt(slot).equals(ContentHash.of(content));
  }

  private void take(OpenWorkspace open, long profile, LaidOut laidOut, Map<String, byte[]> there) {
    Map<String, SettingRow> copies = copies(open, profile);
    Map<String, String> laid = new HashMap<>();
    laidOut
        .files()
        .values()
        .forEach(
            i -> {
              if (open.game().isPerProfile(i.path())) laid.put(key(open, i.path()), i.sha256());
            });
    there.forEach(
        (path, content) -> {
          String sha = ContentHash.of(content), key = key(open, path);
          SettingRow copy = copies.remove(key);
          if (copy != null && copy.sha256().equals(sha)) return;
          if (copy == null && sha.equals(laid.get(key))) return;
          db.put(profile, copy == null ? path : copy.path(), sha, content);
        });
    // the game, or the user, has removed it
    for (SettingRow gone : copies.values())
      if (laid.containsKey(key(open, gone.path()))) db.drop(profile, gone.path());
  }

  private Map<String, SettingRow> copies(OpenWorkspace open, long profile) {
    Map<String, SettingRow> copies = new HashMap<>();
    for (SettingRow r : db.all(profile)) copies.put(key(open, r.path()), r);
    return copies;
  }

  private static String key(OpenWorkspace open, String path) {
    return open.game().pathCase().key(path);
  }

  private static Map<String, byte[]> there(OpenWorkspace open) {
    GameDefinition game = open.game();
    Map<String, byte[]> there = new TreeMap<>();
    try {
      new PatternWalk(game.perProfile(), game.pathCase())
          .files(
              open.roots(),
              (path, place, a) -> {
                if (!a.isRegularFile() || !game.isPerProfile(path)) return;
                if (a.size() > LARGEST) throw tooLarge(path);
                there.put(path, Files.readAllBytes(place));
              });
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return there;
  }

  private static IroningException tooLarge(String path) {
    return IroningException.of(
        "settings-too-large",
        path,
        "The game’s definition gives each profile a copy of it, and it is larger than "
            + (LARGEST >> 20)
            + " MiB.",
        "Take its pattern out of perProfile in game.yaml, or move the file away.");
  }

  /**
   * A look under which settings that have changed since they were laid out are never set aside, as
   * they are kept here: those of this profile stay, those of another are taken for gone. What
   * nobody keeps is set aside as any other file.
   */
  Look safe(OpenWorkspace open, LaidOut laidOut, Look look) {
    Optional<Long> owner = owner(open, laidOut);
    if (owner.isEmpty()) return look;
    boolean own = owner.get() == open.profile();
    return new Look() {
      @Override
      public Found at(String path, Optional<LaidOut.Item> item) {
        Found found = look.at(path, item);
        if (found != Found.DRIFTED || !open.game().isPerProfile(path)) return found;
        return own ? Found.AS_LAID_OUT : Found.ABSENT;
      }

      @Override
      public String sha256(String path) {
        return look.sha256(path);
      }
    };
  }

  /**
   * A look under which files that the game has written to, and that need not be kept, are taken for
   * gone.
   *
   * @param which of all files
   */
  static Look gone(Predicate<String> which, Look look) {
    return new Look() {
      @Override
      public Found at(String path, Optional<LaidOut.Item> item) {
        Found found = look.at(path, item);
        return found == Found.DRIFTED && which.test(path) ? Found.ABSENT : found;
      }

      @Override
      public String sha256(String path) {
        return look.sha256(path);
      }
    };
  }

  List<ProfileSettingsMapper.SettingRow> rows(long profile) {
    return db.all(profile);
  }

  /** Gives a copy up. Inside the caller's transaction. */
  void drop(long profile, String path) {
    db.drop(profile, path);
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  void requireCopy(long profile, String path) {
    if (db.all(profile).stream().anyMatch(r -> r.path().equals(path))) return;
    throw IroningException.of(
        "not-found", path, "The profile has no copy of it.", "Choose one from the list.");
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  void requireProfile(long workspace, long profile) {
    if (db.profiles(workspace).contains(profile)) return;
    throw IroningException.of(
        "not-found",
        "Profile " + profile,
        "There is no such profile in this workspace.",
        "Choose one from the list.");
  }
}
