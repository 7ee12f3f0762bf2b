package ironing.demo;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.archive.ContentHash;
import ironing.standins.catalogue.CatalogueFolder;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.spec.PKCS8EncodedKeySpec;
import java.security.spec.X509EncodedKeySpec;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * Makes the demo's catalogue out of {@code demo/world/catalogue/mods.jsonl}: lines of a catalogue
 * in which a release says, in place of its file, which archive of the demo it is, or what files it
 * has; and of {@code findings.jsonl}.
 *
 * <p>Signed with a key that is made at the first time and kept beside the catalogue's folder. A
 * state that is another than the one before has a higher sequence.
 */
final class DemoCatalogue {
  private static final ObjectMapper JSON = new ObjectMapper();

  private DemoCatalogue() {}

  /**
   * @param target where the archives of the demo lie
   * @return the folder of the catalogue
   */
  static Path write(Path world, Path target) throws IOException {
    Path folder = target.resolve("catalogue");
    Files.createDirectories(folder);
    String source = Files.readString(world.resolve("catalogue/mods.jsonl"));
    CatalogueFolder catalogue =
        new CatalogueFolder(folder, "harbour-board", "Harbour Board", "skerry-line").parts(4);
    for (String line : source.lines().toList()) {
      ObjectNode mod = (ObjectNode) JSON.readTree(line);
      for (JsonNode r : mod.path("releases")) pack(catalogue, target, mod, (ObjectNode) r);
      catalogue.line(mod.path("mod").asText(), JSON.writeValueAsString(mod));
    }
    String findings = Files.readString(world.resolve("catalogue/findings.jsonl"));
    catalogue.findings(findings.lines().toList());
    Path written = target.resolve("catalogue-written");
    String digest = ContentHash.of((source + findings).getBytes(StandardCharsets.UTF_8));
    String[] before =
        Files.exists(written) ? Files.readString(written).split(" ") : new String[] {"0", ""};
    if (!before[1].equals(digest)) {
      long sequence = Long.parseLong(before[0]) + 1;
      catalogue.write(sequence, key(target.resolve("catalogue-key")), "");
      Files.writeString(written, sequence + " " + digest);
    }
    return folder;
  }

  private static void pack(CatalogueFolder catalogue, Path target, ObjectNode mod, ObjectNode r)
      throws IOException {
    String version = r.path("version").asText();
    JsonNode known = r.remove("archive");
    JsonNode files = r.remove("files");
    String name;
    byte[] bytes;
    if (known != null) {
      name = known.asText();
      Path there = target.resolve("archives").resolve(name);
      bytes =
          Files.readAllBytes(Files.exists(there) ? there : target.resolve("inbox").resolve(name));
    } else {
      String variant = r.path("variant").asText("");
      name =
          mod.path("mod").asText()
              + (variant.isEmpty() ? "" : "-" + variant)
              + "-"
              + version
              + ".zip";
      Map<String, byte[]> content = new TreeMap<>();
      files
          .properties()
          .forEach(
              f -> content.put(f.getKey(), f.getValue().asText().getBytes(StandardCharsets.UTF_8)));
      content.put("mod-card.yaml", card(mod, r).getBytes(StandardCharsets.UTF_8));
      bytes = DemoPacker.zip(content);
    }
    r.set("file", JSON.valueToTree(catalogue.file(name, bytes)));
  }

  /** A card that says what the line says. JSON is YAML. */
  private static String card(ObjectNode mod, ObjectNode r) throws IOException {
    ObjectNode card = JSON.createObjectNode();
    card.put("format", "ironing/mod@1");
    card.set("id", mod.path("mod"));
    card.set("name", mod.path("name"));
    card.set("version", r.path("version"));
    card.set("authors", mod.path("authors"));
    card.set("summary", mod.path("summary"));
    ObjectNode game = card.putObject("game");
    game.put("id", mod.path("game").asText());
    if (r.has("game")) game.set("versions", r.path("game"));
    for (String key : List.of("variant", "harmless")) if (r.has(key)) card.set(key, r.path(key));
    for (String key : List.of("needs", "clashes", "for"))
      if (r.path(key) instanceof ArrayNode) card.set(key, r.path(key));
    return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(card) + "\n";
  }

  private static KeyPair key(Path kept) throws IOException {
    try {
      KeyFactory factory = KeyFactory.getInstance("Ed25519");
      if (Files.exists(kept)) {
        String[] both = Files.readString(kept).split("\n");
        Base64.Decoder base64 = Base64.getDecoder();
        return new KeyPair(
            factory.generatePublic(new X509EncodedKeySpec(base64.decode(both[0]))),
            factory.generatePrivate(new PKCS8EncodedKeySpec(base64.decode(both[1]))));
      }
      KeyPair made = KeyPairGenerator.getInstance("Ed25519").generateKeyPair();
      Base64.Encoder base64 = Base64.getEncoder();
      Files.writeString(
          kept,
          base64.encodeToString(made.getPublic().getEncoded())
              + "\n"
              + base64.encodeToString(made.getPrivate().getEncoded())
              + "\n");
      return made;
    } catch (GeneralSecurityException e) {
      throw new IOException("the key of the demo's catalogue cannot be made", e);
    }
  }
}
