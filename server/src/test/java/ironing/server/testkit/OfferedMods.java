package ironing.server.testkit;

import ironing.standins.catalogue.CatalogueFolder;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * Mods for the plain game in a catalogue that a test writes, each archive with a card that says the
 * same.
 */
public final class OfferedMods {
  private final CatalogueFolder folder;
  private final Map<String, List<Map<String, Object>>> releases = new TreeMap<>();

  public OfferedMods(CatalogueFolder folder) {
    this.folder = folder;
  }

  /**
   * Offers a release.
   *
   * @param needs each a mod, or a mod and a range behind a blank
   */
  public OfferedMods release(String mod, String version, String... needs) throws IOException {
    return release(mod, version, Map.of(), needs);
  }

  /**
   * @param more of what the line says of the release
   */
  public OfferedMods release(String mod, String version, Map<String, Object> more, String... needs)
      throws IOException {
    byte[] archive = archive(mod, version, needs);
    Map<String, Object> release = new LinkedHashMap<>();
    release.put("version", version);
    release.put("at", "2026-11-20");
    release.put("file", folder.file(mod + "-" + version + ".zip", archive));
    List<Map<String, String>> all = new ArrayList<>();
    for (String n : needs) all.add(need(n));
    release.put("needs", all);
    release.putAll(more);
    releases.computeIfAbsent(mod, m -> new ArrayList<>()).add(release);
    folder.mod(
        Map.of(
            "mod", mod,
            "name", nameOf(mod),
            "game", "plain",
            "summary", "About " + mod,
            "tags", List.of("sea"),
            "authors", List.of("Mairi"),
            "releases", releases.get(mod)));
    return this;
  }

  private static Map<String, String> need(String text) {
    String[] parts = text.split(" ", 2);
    return Map.of("mod", parts[0], "versions", parts.length == 1 ? "*" : parts[1]);
  }

  public static String nameOf(String mod) {
    return Character.toUpperCase(mod.charAt(0)) + mod.substring(1);
  }

  /** The archive of a release. */
  public static byte[] archive(String mod, String version, String... needs) {
    StringBuilder card =
        new StringBuilder(
            "format: ironing/mod@1\nid: %s\nname: %s\nversion: \"%s\"\n"
                .formatted(mod, nameOf(mod), version));
    if (needs.length > 0) card.append("needs:\n");
    for (String n : needs) {
      Map<String, String> need = need(n);
      card.append(
          "  - { mod: %s, versions: \"%s\" }\n".formatted(need.get("mod"), need.get("versions")));
    }
    return Games.mod(
        Map.of("mod-card.yaml", card.toString(), mod + ".txt", mod + " " + version + "\n"));
  }
}
