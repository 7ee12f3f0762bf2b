package ironing.server.deploy;

import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The settings files of a profile. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/profiles/{profile}/settings")
class ProfileSettingsController {
  private final ProfileSettings settings;
  private final OpenWorkspaces workspaces;
  private final Deployments deployments;

  ProfileSettingsController(
      ProfileSettings settings, OpenWorkspaces workspaces, Deployments deployments) {
    this.settings = settings;
    this.workspaces = workspaces;
    this.deployments = deployments;
  }

  /**
   * @param at when it was kept last
   */
  record SettingView(String path, long sizeBytes, String at) {}

  /**
   * @param patterns which files the game's definition gives each profile; empty where it gives none
   * @param files of which the profile has a copy
   */
  record SettingsView(List<String> patterns, List<SettingView> files) {}

  /** The settings files that a profile has copies of. */
  @GetMapping
  SettingsView settings(@PathVariable long workspace, @PathVariable long profile) {
    settings.requireProfile(workspace, profile);
    return new SettingsView(
        workspaces.game(workspace).perProfile().stream().map(Object::toString).toList(),
        settings.rows(profile).stream()
            .map(r -> new SettingView(r.path(), r.content().length, r.at()))
            .toList());
  }

  /** Gives a copy up: the profile starts again with what the mods or the game bring. */
  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void giveUp(@PathVariable long workspace, @PathVariable long profile, @RequestParam String path) {
    settings.requireProfile(workspace, profile);
    settings.requireCopy(profile, path);
    workspaces.note(
        workspace,
        "profiles",
        "Gave up the profile’s own " + path,
        () -> settings.drop(profile, path));
    deployments.forget(workspace);
  }
}
