package ironing.standins.catalogue;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.MessageDigest;
import java.security.Signature;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * Writes the files of a catalogue as its keeper would: parts named by their digests, then
 * catalogue.json, and its signature where there is a key.
 */
public final class CatalogueFolder {
  private static final ObjectMapper JSON = new ObjectMapper();

  private final Path folder;
  private final Map<String, Object> head = new LinkedHashMap<>();
  private final Map<String, String> lines = new TreeMap<>();
  private int parts = 1;

  public CatalogueFolder(Path folder, String id, String title, String game) {
    this.folder = folder;
    head.put("format", "ironing/catalogue@1");
    head.put("id", id);
    head.put("title", title);
    head.put("games", List.of(game));
  }

  /** Over how many files the mods are spread. */
  public CatalogueFolder parts(int count) {
    parts = count;
    return this;
  }

  /** Something else that catalogue.json says. */
  public CatalogueFolder says(String key, Object value) {
    head.put(key, value);
    return this;
  }

  /** Puts an archive there, and gives what a release says of it. */
  public Map<String, Object> file(String name, byte[] bytes) throws IOException {
    Path file = folder.resolve("files").resolve(name);
    Files.createDirectories(file.getParent());
    Files.write(file, bytes);
    return Map.of(
        "name", name, "href", "files/" + name, "size", bytes.length, "sha256", sha256(bytes));
  }

  /** Offers a mod; one of the same id takes the place of the earlier. */
  public CatalogueFolder mod(Map<String, Object> mod) throws IOException {
    return line(String.valueOf(mod.get("mod")), JSON.writeValueAsString(mod));
  }

  /** A line as it is, right or wrong; the key only says which line it takes the place of. */
  public CatalogueFolder line(String key, String text) {
    lines.put(key, text);
    return this;
  }

  /** Puts findings there, one line each, right or wrong, in the place of those before. */
  public CatalogueFolder findings(List<String> findings) throws IOException {
    byte[] bytes = (String.join("\n", findings) + "\n").getBytes(StandardCharsets.UTF_8);
    String href = "findings-" + sha256(bytes) + ".jsonl";
    Files.write(folder.resolve(href), bytes);
    return says("findings", Map.of("href", href, "sha256", sha256(bytes), "size", bytes.length));
  }

  /** Writes a state that is not signed. */
  public void write(long sequence) throws IOException {
    write(sequence, null, "");
  }

  /**
   * Writes a state.
   *
   * @param key what it is signed with; null for nothing
   * @param nextKey what the next state will be signed with; empty for the same
   */
  public void write(long sequence, KeyPair key, String nextKey) throws IOException {
    List<List<String>> spread = new ArrayList<>();
    for (int i = 0; i < parts; i++) spread.add(new ArrayList<>());
    lines.forEach((mod, line) -> spread.get(Math.floorMod(mod.hashCode(), parts)).add(line + "\n"));
    List<Map<String, Object>> told = new ArrayList<>();
    for (List<String> part : spread) {
      if (part.isEmpty()) continue;
      byte[] bytes = String.join("", part).getBytes(StandardCharsets.UTF_8);
      String href = "parts/" + sha256(bytes) + ".jsonl";
      Files.createDirectories(folder.resolve("parts"));
      Files.write(folder.resolve(href), bytes);
      told.add(Map.of("href", href, "sha256", sha256(bytes), "size", bytes.length));
    }
    Map<String, Object> state = new LinkedHashMap<>(head);
    state.put("sequence", sequence);
    state.put("parts", told);
    if (key != null) state.put("key", publicKey(key));
    if (!nextKey.isEmpty()) state.put("nextKey", nextKey);
    byte[] bytes = JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(state);
    Files.write(folder.resolve("catalogue.json"), bytes);
    Path signature = folder.resolve("catalogue.json.sig");
    Files.deleteIfExists(signature);
    if (key != null) Files.writeString(signature, sign(key, bytes));
  }

  /** The raw public key in base64: the last 32 bytes of its SubjectPublicKeyInfo (RFC 8410). */
  public static String publicKey(KeyPair key) {
    byte[] spki = key.getPublic().getEncoded();
    return Base64.getEncoder()
        .encodeToString(Arrays.copyOfRange(spki, spki.length - 32, spki.length));
  }

  private static String sign(KeyPair key, byte[] bytes) {
    try {
      Signature s = Signature.getInstance("Ed25519");
      s.initSign(key.getPrivate());
      s.update(bytes);
      return Base64.getEncoder().encodeToString(s.sign());
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("the key cannot sign", e);
    }
  }

  private static String sha256(byte[] bytes) {
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }
}
