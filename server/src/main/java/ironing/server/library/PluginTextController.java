package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.library.Choices;
import ironing.core.library.ModCard;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.path.GamePath;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.PluginText;
import ironing.server.library.ModStore.BuiltFile;
import ironing.server.library.ModStore.Made;
import ironing.server.library.ModStore.Place;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Plugins in their text form: written out, and brought back as a mod of their own. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/plugins")
class PluginTextController {
  private static final String ENDING = ".jsonl";
  private final ModStore mods;
  private final OpenWorkspaces workspaces;

  PluginTextController(ModStore mods, OpenWorkspaces workspaces) {
    this.mods = mods;
    this.workspaces = workspaces;
  }

  /** The text form of a plugin in play. */
  @GetMapping(value = "/{plugin}/text", produces = "application/jsonl")
  ResponseEntity<String> text(@PathVariable long workspace, @PathVariable String plugin)
      throws IOException {
    OpenWorkspace open = workspaces.get(workspace);
    LoadOrder.Entry e =
        open.picture()
            .loadOrder()
            .find(plugin)
            .orElseThrow(
                () ->
                    IroningException.of(
                        "not-found",
                        plugin,
                        "There is no such plugin.",
                        "Choose one from the load order."));
    Plugin p = open.value().files().format(open.game()).read(source(open, e));
    ContentDisposition as =
        ContentDisposition.attachment().filename(e.name() + ENDING, StandardCharsets.UTF_8).build();
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_DISPOSITION, as.toString())
        .contentType(MediaType.parseMediaType("application/jsonl;charset=UTF-8"))
        .body(PluginText.write(p));
  }

  private static PluginFormat.Source source(OpenWorkspace open, Entry e) throws IOException {
    if (e.plugin().files().isPresent())
      return open.value().files().source(e.plugin().files().get());
    Path file = open.value().locateInPlay(e.plugin().path());
    return PluginFormat.Source.of(e.name(), Files.readAllBytes(file));
  }

  /**
   * A plugin’s text form.
   *
   * @param name its file name, with or without {@code .jsonl}
   */
  record PluginTextRequest(String name, String text) {}

  /**
   * @param mod that was made of it
   * @param covers the mod whose plugin of this name it covers; empty where there is none
   */
  record ImportedPlugin(long mod, String plugin, int records, String covers) {}

  /** Makes a mod of a plugin in its text form; what it covers is not touched. */
  @PostMapping("/text")
  ImportedPlugin importText(@PathVariable long workspace, @RequestBody PluginTextRequest body)
      throws IOException {
    OpenWorkspace open = workspaces.get(workspace);
    String name =
        body.name().endsWith(ENDING)
            ? body.name().substring(0, body.name().length() - ENDING.length())
            : body.name();
    requireName(open, name);
    Plugin p = PluginText.parse(name, body.text());
    String covers =
        open.picture().loadOrder().find(name).map(e -> open.nameOf(e.plugin().mod())).orElse("");
    String path = open.game().pluginPath(name);
    byte[] bytes = open.value().files().format(open.game()).write(p, path, List.of()).get(path);
    String title = p.header().title().filter(t -> !t.isBlank()).orElse(name);
    String version = p.header().version().orElse("1");
    ModCard card =
        ModCard.generated("imported", title, version, "A plugin that was brought in as text.");
    Made made =
        new Made(
            null,
            "archive",
            card,
            "",
            "It was brought in as text",
            Choices.NONE,
            Optional.empty(),
            List.of(new BuiltFile("", path, "", bytes.length, ContentHash.of(bytes))),
            List.of());
    try (ModStore.WorkFolder work = mods.workFolder(workspace)) {
      Path built = work.path().resolve("mod");
      Path file = GamePath.resolve(built.resolve("content"), path);
      Files.createDirectories(file.getParent());
      Files.write(file, bytes);
      long mod = mods.add(workspace, made, new Place.OnTop(), built, m -> {});
      return new ImportedPlugin(mod, name, p.records().size(), covers);
    }
  }

  private static void requireName(OpenWorkspace open, String name) {
    if (open.game().hasDocumentPlugins())
      throw IroningException.of(
          "name-unfit",
          name,
          "The plugins of this game are open text themselves.",
          "Bring the folder with its manifest in as a mod.");
    boolean bare = !name.isBlank() && !name.contains("/") && !name.contains("\\");
    if (bare && open.game().plugins().isPresent()) {
      String path = open.game().pluginPath(name);
      if (open.game().isPlugin(path) && GamePath.whyUnsafe(path) == null) return;
    }
    throw IroningException.of(
        "name-unfit",
        name,
        "The game does not take a file of this name for a plugin.",
        "Name it as the game’s definition says, and put .jsonl behind that.");
  }
}
