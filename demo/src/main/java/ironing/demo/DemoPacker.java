package ironing.demo;

import ironing.core.archive.ContentHash;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.PluginText;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.GZIPOutputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.commons.compress.archivers.sevenz.SevenZArchiveEntry;
import org.apache.commons.compress.archivers.sevenz.SevenZOutputFile;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;

/**
 * Makes the demo's game folder and archives out of {@code demo/world}.
 *
 * <p>A source becomes what its ending says: {@code x.plug.jsonl} a plugin, {@code x.png.art} a
 * drawn image, {@code x.wav.tone} a sound, a folder {@code x.crate} a pack. A folder below {@code
 * mods} and {@code inbox} is an archive of that name, a folder {@code x.zip} in one an archive in
 * it. The same sources always give the same bytes.
 *
 * <p>Usage: {@code DemoPacker WORLD TARGET} writes {@code TARGET/game}, {@code TARGET/archives},
 * {@code TARGET/inbox} and {@code TARGET/catalogue}.
 */
public final class DemoPacker {
  // a fixed time, so that archives made twice are the same file and are recognised as such
  private static final Instant TIME = Instant.parse("2026-01-01T00:00:00Z");

  // a folder that becomes a zip within the game or an archive
  private static final Pattern INNER_ZIP = Pattern.compile("(.*?\\.(?:crate|zip))/(.*)");

  private DemoPacker() {}

  public static void main(String[] args) throws IOException {
    pack(Path.of(args[0]), Path.of(args[1]));
    DemoCatalogue.write(Path.of(args[0]), Path.of(args[1]));
  }

  /** Leaves a game folder that is there already as it is: mods may be deployed in it. */
  public static void pack(Path world, Path target) throws IOException {
    Path game = target.resolve("game");
    // the manifest is written last: without it an earlier packing was cut off
    if (!Files.exists(game.resolve("manifest.sha256")))
      packGame(content(world.resolve("game")), game);
    packArchives(world.resolve("mods"), target.resolve("archives"));
    packArchives(world.resolve("inbox"), target.resolve("inbox"));
  }

  /** A game of open text with its archives. */
  public static void packText(Path world, Path target) throws IOException {
    Path game = target.resolve("game");
    if (!Files.exists(game.resolve("manifest.sha256")))
      packGame(content(world.resolve("game")), game);
    // what the game keeps beside its folder
    if (Files.isDirectory(world.resolve("user")) && !Files.exists(target.resolve("user")))
      for (Map.Entry<String, byte[]> f : content(world.resolve("user")).entrySet()) {
        Path file = target.resolve("user").resolve(f.getKey());
        Files.createDirectories(file.getParent());
        Files.write(file, f.getValue());
      }
    packArchives(world.resolve("mods"), target.resolve("archives"));
  }

  /** The same game under another title, with the archives below {@code trouble}. */
  static void packTrouble(Path world, Path target, String title) throws IOException {
    Path game = target.resolve("game");
    if (!Files.exists(game.resolve("manifest.sha256"))) {
      Map<String, byte[]> content = content(world.resolve("game"));
      String said = new String(content.get("game.yaml"), StandardCharsets.UTF_8);
      String titled = said.replaceFirst("(?m)^title: .*$", "title: " + title);
      content.put("game.yaml", titled.getBytes(StandardCharsets.UTF_8));
      packGame(content, game);
    }
    packArchives(world.resolve("trouble"), target.resolve("archives"));
  }

  private static void packArchives(Path sources, Path target) throws IOException {
    Files.createDirectories(target);
    try (Stream<Path> all = Files.list(sources)) {
      for (Path source : all.sorted().toList()) {
        String name = source.getFileName().toString();
        Files.write(target.resolve(name), archive(name, content(source)));
      }
    }
  }

  private static void packGame(Map<String, byte[]> content, Path game) throws IOException {
    StringBuilder manifest = new StringBuilder();
    for (Map.Entry<String, byte[]> f : content.entrySet()) {
      Path place = game.resolve(f.getKey());
      Files.createDirectories(place.getParent());
      Files.write(place, f.getValue());
      boolean changes =
          f.getKey().startsWith("saves/")
              || f.getKey().startsWith("settings/")
              || f.getKey().equals("tower.json");
      if (!changes)
        manifest.append(ContentHash.of(f.getValue())).append("  ").append(f.getKey()).append('\n');
    }
    Files.writeString(game.resolve("manifest.sha256"), manifest);
  }

  /** What a source folder becomes, by path. */
  static Map<String, byte[]> content(Path folder) throws IOException {
    List<Path> sources;
    try (Stream<Path> all = Files.walk(folder)) {
      sources =
          all.filter(Files::isRegularFile).sorted(Comparator.comparing(Path::toString)).toList();
    }
    Map<String, byte[]> out = new TreeMap<>();
    Map<String, Map<String, byte[]>> crates = new TreeMap<>();
    for (Path s : sources) {
      String path = folder.relativize(s).toString().replace('\\', '/');
      Map.Entry<String, byte[]> made = made(path, s);
      Matcher inner = INNER_ZIP.matcher(made.getKey());
      if (!inner.matches()) out.put(made.getKey(), made.getValue());
      else
        crates
            .computeIfAbsent(inner.group(1), c -> new TreeMap<>())
            .put(inner.group(2), made.getValue());
    }
    for (Map.Entry<String, Map<String, byte[]>> c : crates.entrySet())
      out.put(c.getKey(), zip(c.getValue()));
    return out;
  }

  private static Map.Entry<String, byte[]> made(String path, Path source) throws IOException {
    if (path.endsWith(".plug.jsonl")) {
      String plain = path.substring(0, path.length() - ".jsonl".length());
      String name = plain.substring(plain.lastIndexOf('/') + 1);
      return Map.entry(plain, PluginCodec.encode(PluginText.parse(name, Files.readString(source))));
    }
    if (path.endsWith(".png.art"))
      return Map.entry(
          path.substring(0, path.length() - 4), DrawnImage.png(Files.readAllLines(source)));
    if (path.endsWith(".wav.tone"))
      return Map.entry(path.substring(0, path.length() - 5), Tone.wav(Files.readAllLines(source)));
    return Map.entry(path, Files.readAllBytes(source));
  }

  private static byte[] archive(String name, Map<String, byte[]> files) throws IOException {
    if (name.endsWith(".zip")) return zip(files);
    if (name.endsWith(".7z")) return sevenZ(files);
    if (name.endsWith(".tar.gz")) return tarGz(files);
    throw new IllegalArgumentException(
        "demo/world/mods/" + name + ": the packer makes .zip, .7z and .tar.gz");
  }

  static byte[] zip(Map<String, byte[]> files) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(bytes, StandardCharsets.UTF_8)) {
      for (Map.Entry<String, byte[]> f : files.entrySet()) {
        ZipEntry e = new ZipEntry(f.getKey());
        e.setTimeLocal(TIME.atZone(ZoneOffset.UTC).toLocalDateTime());
        zip.putNextEntry(e);
        zip.write(f.getValue());
      }
    }
    return bytes.toByteArray();
  }

  private static byte[] sevenZ(Map<String, byte[]> files) throws IOException {
    Path temp = Files.createTempFile("demo", ".7z");
    try {
      try (SevenZOutputFile out = new SevenZOutputFile(temp.toFile())) {
        for (Map.Entry<String, byte[]> f : files.entrySet()) {
          SevenZArchiveEntry e = new SevenZArchiveEntry();
          e.setName(f.getKey());
          e.setSize(f.getValue().length);
          e.setLastModifiedTime(FileTime.from(TIME));
          out.putArchiveEntry(e);
          out.write(f.getValue());
          out.closeArchiveEntry();
        }
      }
      return Files.readAllBytes(temp);
    } finally {
      Files.deleteIfExists(temp);
    }
  }

  private static byte[] tarGz(Map<String, byte[]> files) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (OutputStream gz = new GZIPOutputStream(bytes);
        TarArchiveOutputStream tar = new TarArchiveOutputStream(gz, "UTF-8")) {
      tar.setLongFileMode(TarArchiveOutputStream.LONGFILE_POSIX);
      for (Map.Entry<String, byte[]> f : files.entrySet()) {
        TarArchiveEntry e = new TarArchiveEntry(f.getKey());
        e.setSize(f.getValue().length);
        e.setModTime(TIME.toEpochMilli());
        tar.putArchiveEntry(e);
        tar.write(f.getValue());
        tar.closeArchiveEntry();
      }
    }
    return bytes.toByteArray();
  }

  /**
   * The archive names of the demo in the order in which the demo installs them, the lowest layer
   * first.
   */
  public static List<String> installOrder() {
    return new ArrayList<>(
        List.of(
            "community-caulking-5.2.zip",
            "rope-locker-1.3.zip",
            "hull-textures-large-2.0.7z",
            "clearer-charts-1.6.tar.gz",
            "fogbound-weather-4.0.1.zip",
            "Bigger Bollards 1.0.zip",
            "harbourmasters-ledger-2.1.0.zip",
            "coal-to-kelp-1.1.zip",
            "wheelhouse-panel-3.2.0.zip",
            "night-ferry-0.4.zip",
            "lamplight-1.0.tar.gz",
            "quiet-gulls-0.9.zip",
            "steady-compass-1.0.zip",
            "winter-timetable-1.0.4.zip"));
  }
}
