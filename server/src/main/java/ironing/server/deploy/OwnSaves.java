package ironing.server.deploy;

import ironing.core.deploy.ProfileSaves;
import ironing.core.deploy.RealDisk;
import ironing.core.game.GameDefinition;
import ironing.core.path.GameRoots;
import ironing.server.platform.Folders;
import ironing.server.workspace.FolderUse;
import ironing.server.workspace.FolderUse.Use;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.Profiles;
import ironing.server.workspace.Profiles.Named;
import ironing.server.workspace.Site;
import java.time.Clock;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.springframework.stereotype.Component;

/**
 * The saves of each profile, where the definition of the game names paths both as protected and as
 * each profile's own: those of the profile with which the game is started lie in its folder. What
 * lay there before anybody said whose it is belongs to the oldest profile.
 */
@Component
public class OwnSaves {
  private final Profiles profiles;
  private final FolderUse use;
  private final Folders folders;
  private final Clock clock = Clock.systemUTC();

  OwnSaves(Profiles profiles, FolderUse use, Folders folders) {
    this.profiles = profiles;
    this.use = use;
    this.folders = folders;
  }

  /**
   * What one profile has.
   *
   * @param profile one that was deleted is no more, but its saves are kept
   * @param inFolder whether they lie in the game folder, or are kept beside
   */
  public record OfProfile(Named profile, int count, boolean inFolder) {}

  public boolean has(OpenWorkspace open) {
    return open.game().hasOwnSaves();
  }

  /** Puts the saves of the profile in use into the folder, for the game that is to be started. */
  public void bring(OpenWorkspace open) {
    if (!has(open)) return;
    saves(open).bring(key(open.profile()), first(open), now());
  }

  /** Finishes what a crash has left. */
  void recover(Site site) {
    if (site.game().hasOwnSaves()) saves(site.roots(), site.game()).recover(now());
  }

  /** The saves of the profile in use, wherever they lie. */
  public List<ProfileSaves.Save> of(OpenWorkspace open) {
    return has(open) ? saves(open).of(key(open.profile()), first(open)) : List.of();
  }

  /** Every profile that has any, the one in use, and the one whose saves lie in the folder. */
  public List<OfProfile> all(OpenWorkspace open) {
    if (!has(open)) return List.of();
    ProfileSaves saves = saves(open);
    String first = first(open), there = saves.whose().orElse(first);
    List<OfProfile> all = new ArrayList<>();
    for (Named p : profiles.named(open.workspace())) {
      String key = key(p.id());
      int count = saves.of(key, first).size();
      boolean inFolder = key.equals(there);
      if (count > 0 || inFolder || p.id() == open.profile())
        all.add(new OfProfile(p, count, inFolder));
    }
    return all;
  }

  /**
   * Copies another profile's saves to those of the profile in use; what it has by the same name
   * stays.
   *
   * @return how many were copied
   */
  public int copy(OpenWorkspace open, long from) {
    use.begin(open, Use.CHANGING);
    try {
      return saves(open).copy(key(from), key(open.profile()), first(open));
    } finally {
      use.end(open.workspace());
    }
  }

  /**
   * Puts the saves of the profile in use back where those of a profile that sets were tried with
   * lie; those are kept beside.
   */
  void giveBack(OpenWorkspace open, long trialProfile) {
    if (!has(open)) return;
    if (saves(open).whose().filter(key(trialProfile)::equals).isPresent()) bring(open);
  }

  private static ProfileSaves saves(OpenWorkspace open) {
    return saves(open.roots(), open.game());
  }

  private static ProfileSaves saves(GameRoots roots, GameDefinition game) {
    return new ProfileSaves(new RealDisk(), roots, game);
  }

  // numbers of profiles begin anew with a new database
  private String key(long profile) {
    return folders.installation() + "-" + profile;
  }

  private String first(OpenWorkspace open) {
    return profiles.named(open.workspace()).stream()
        .filter(p -> !p.deleted())
        .min(Comparator.comparing(Named::id))
        .map(p -> key(p.id()))
        .orElseGet(() -> key(open.profile()));
  }

  private String now() {
    return clock.instant().truncatedTo(ChronoUnit.SECONDS).toString();
  }
}
