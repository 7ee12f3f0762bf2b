package ironing.server.profiles;

import ironing.core.workspace.CarriedOver;
import ironing.core.workspace.CarriedOver.Part;
import ironing.server.layers.DifferenceView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.Changed;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.Profiles;
import ironing.server.workspace.Profiles.Profile;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}/profiles")
class ProfilesController {
  private final Profiles profiles;
  private final OpenWorkspaces workspaces;

  ProfilesController(Profiles profiles, OpenWorkspaces workspaces) {
    this.profiles = profiles;
    this.workspaces = workspaces;
  }

  record ProfileView(
      long id, String name, boolean inUse, int layersOn, int rulings, int heldBack) {}

  /**
   * @param from the profile that it is to be a copy of; absent: every mod is off
   */
  record NewProfile(String name, @MayBeAbsent Optional<Long> from) {}

  record ProfileName(String name) {}

  record MadeProfile(long id) {}

  /**
   * @param from the profile to take from
   * @param mods whose switch and version are taken over
   */
  record CarryRequest(long from, @MayBeAbsent Set<Long> mods, @MayBeAbsent Set<Part> parts) {
    CarryRequest {
      mods = mods == null ? Set.of() : mods;
      parts = parts == null ? Set.of() : parts;
    }
  }

  /** The profiles of the workspace. */
  @GetMapping
  List<ProfileView> profiles(@PathVariable long workspace) {
    return profiles.all(workspaces.get(workspace)).stream().map(ProfilesController::view).toList();
  }

  private static ProfileView view(Profile p) {
    return new ProfileView(
        p.id(),
        p.name(),
        p.inUse(),
        (int) p.arrangement().layers().stream().filter(l -> l.on()).count(),
        p.arrangement().rulings().size(),
        p.arrangement().heldBack().values().stream().mapToInt(Set::size).sum());
  }

  /** Makes a profile as a copy of the one in use. */
  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  MadeProfile create(@PathVariable long workspace, @RequestBody NewProfile body) {
    return new MadeProfile(
        profiles.create(workspace, Optional.ofNullable(body.name()).orElse(""), body.from()));
  }

  /** Gives a profile another name. */
  @PutMapping("/{profile}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void rename(
      @PathVariable long workspace, @PathVariable long profile, @RequestBody ProfileName body) {
    profiles.rename(workspace, profile, Optional.ofNullable(body.name()).orElse(""));
  }

  /** Deletes a profile; its saves are kept. */
  @DeleteMapping("/{profile}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void delete(@PathVariable long workspace, @PathVariable long profile) {
    profiles.delete(workspace, profile);
  }

  /** Brings a deleted profile back. */
  @PostMapping("/{profile}/bring-back")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void bringBack(@PathVariable long workspace, @PathVariable long profile) {
    profiles.bringBack(workspace, profile);
  }

  /** Takes a profile into use; asked dry, tells what the game would read differently. */
  @PostMapping("/{profile}/use")
  ResponseEntity<DifferenceView> use(
      @PathVariable long workspace,
      @PathVariable long profile,
      @RequestParam(defaultValue = "false") boolean dryRun) {
    OpenWorkspace before = workspaces.get(workspace);
    Changed changed =
        dryRun
            ? Changed.as(before, profiles.get(before, profile).arrangement())
            : new Changed(before, profiles.use(workspace, profile));
    return DifferenceView.of(changed).asAnswer();
  }

  /** How another profile differs from the one in use. */
  @GetMapping("/{profile}/comparison")
  ProfileComparison comparison(@PathVariable long workspace, @PathVariable long profile) {
    OpenWorkspace open = workspaces.get(workspace);
    return ProfileComparison.of(open, profiles.get(open, profile));
  }

  /** Carries parts of another profile over into the one in use. */
  @PostMapping("/carry-over")
  ResponseEntity<DifferenceView> carryOver(
      @PathVariable long workspace,
      @RequestBody CarryRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace before = workspaces.get(workspace);
    Profile from = profiles.get(before, body.from());
    Set<Long> mods = new HashSet<>(body.mods());
    mods.retainAll(before.mods().keySet());
    return DifferenceView.of(
            workspaces.change(
                workspace,
                Expected.of(dryRun, ifMatch),
                "Carried over from the profile “" + from.name() + "”",
                b -> CarriedOver.of(b.value(), from.arrangement(), mods, body.parts())))
        .asAnswer();
  }
}
