package ironing.core.archive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import ironing.core.archive.Unpacker.Unpacked;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.zip.CRC32;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.FieldSource;

/**
 * Archives as other programs make them (Info-ZIP zip, GNU tar with gzip, xz, bzip2 and zstd, 7zz),
 * compared with what those programs list and with the bytes that went in. The programs are Debian's
 * packages of the same names; {@code ./ironing test} installs them.
 */
class OtherProgramsTest {
  @TempDir Path temp;
  private Path source;
  private final TreeMap<String, String> hashes = new TreeMap<>();

  static final List<Arguments> MADE =
      List.of(
          Arguments.of(
              "a.zip", List.of("zip", "-q", "-r", "{a}", "."), List.of("unzip", "-Z1", "{a}")),
          // data descriptors and zip64, because the output cannot be rewound (APPNOTE 4.3.9, 4.5.3)
          Arguments.of(
              "stream.zip",
              List.of("sh", "-c", "zip -q -fz -r - . > \"$0\"", "{a}"),
              List.of("unzip", "-Z1", "{a}")),
          Arguments.of("a.tar", List.of("tar", "-cf", "{a}", "."), List.of("tar", "-tf", "{a}")),
          Arguments.of(
              "a.tar.gz", List.of("tar", "-czf", "{a}", "."), List.of("tar", "-tf", "{a}")),
          Arguments.of(
              "a.tar.xz", List.of("tar", "-cJf", "{a}", "."), List.of("tar", "-tf", "{a}")),
          Arguments.of(
              "a.tar.bz2", List.of("tar", "-cjf", "{a}", "."), List.of("tar", "-tf", "{a}")),
          Arguments.of(
              "a.tar.zst",
              List.of("tar", "--zstd", "-cf", "{a}", "."),
              List.of("tar", "-tf", "{a}")),
          Arguments.of(
              "long.tar.zst",
              List.of("tar", "-I", "zstd --ultra -22 --long=27", "-cf", "{a}", "."),
              List.of("tar", "-tf", "{a}")),
          Arguments.of(
              "a.7z",
              List.of("7zz", "a", "-bso0", "{a}", "."),
              List.of("7zz", "l", "-ba", "-slt", "{a}")),
          Arguments.of(
              "ppmd.7z",
              List.of("7zz", "a", "-bso0", "-m0=BZip2", "{a}", "."),
              List.of("7zz", "l", "-ba", "-slt", "{a}")));

  @BeforeEach
  void files() throws IOException {
    source = Files.createDirectory(temp.resolve("source"));
    Random random = new Random(7);
    put("data/readme.txt", "hello\n".repeat(500).getBytes(StandardCharsets.UTF_8));
    put("data/Textures/Große Karte.png", noise(random, 300_000));
    put("empty.txt", new byte[0]);
    put("deep/a/b/c/d/e/f/last.bin", noise(random, 2_000_000));
    put("n".repeat(120) + ".txt", new byte[] {1});
    for (int i = 0; i < 40; i++) put("many/" + i + ".dat", noise(random, 1000 + i));
  }

  private static byte[] noise(Random random, int size) {
    byte[] bytes = new byte[size];
    random.nextBytes(bytes);
    return bytes;
  }

  private void put(String path, byte[] bytes) throws IOException {
    Path file = source.resolve(path);
    Files.createDirectories(file.getParent());
    Files.write(file, bytes);
    hashes.put(path, ContentHash.of(bytes));
  }

  private String run(List<String> command, Path archive, Path in) throws Exception {
    List<String> filled = command.stream().map(a -> a.replace("{a}", archive.toString())).toList();
    Process p = new ProcessBuilder(filled).directory(in.toFile()).redirectErrorStream(true).start();
    String said = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as(filled + ": " + said).isZero();
    return said;
  }

  private Map<String, String> unpacked(Path archive, Optional<Path> program) throws IOException {
    Path out = Files.createTempDirectory(temp, "out");
    DecoderMemory memory = new DecoderMemory(DecoderMemory.DEFAULT_KIB);
    TreeMap<String, String> got = new TreeMap<>();
    for (Unpacked f :
        new Unpacker(ArchiveLimits.DEFAULT, memory, program)
            .unpack(archive, "the archive", out, nested -> true, (done, total) -> {})) {
      got.put(f.path(), f.sha256());
      assertThat(ContentHash.of(out.resolve(f.path()))).as(f.path()).isEqualTo(f.sha256());
    }
    return got;
  }

  @ParameterizedTest(name = "{0}")
  @FieldSource("MADE")
  void every_file_arrives_and_nothing_else(String name, List<String> pack, List<String> list)
      throws Exception {
    Path archive = temp.resolve(name);
    run(pack, archive, source);
    assertThat(unpacked(archive, Optional.empty())).isEqualTo(hashes);
    List<String> listed =
        run(list, archive, temp)
            .lines()
            .map(l -> l.replaceFirst("^Path = ", ""))
            .filter(l -> list.get(0).equals("7zz") ? hashes.containsKey(l) : !l.endsWith("/"))
            // GNU tar writes bytes that are no ASCII as octal numbers
            .map(l -> l.replaceFirst("^\\./", "").replace("\\303\\237", "ß"))
            .sorted()
            .toList();
    assertThat(listed).isEqualTo(List.copyOf(hashes.keySet()));
  }

  @ParameterizedTest(name = "{0}")
  @FieldSource("MADE")
  void cut_short_it_is_refused(String name, List<String> pack, List<String> list) throws Exception {
    Path archive = temp.resolve(name);
    run(pack, archive, source);
    byte[] all = Files.readAllBytes(archive);
    for (double part : new double[] {0.1, 0.5, 0.9}) {
      Files.write(archive, Arrays.copyOf(all, (int) (all.length * part)));
      assertThat(
              catchThrowableOfType(
                  ArchiveException.class, () -> unpacked(archive, Optional.empty())))
          .as(name + " cut to " + part)
          .isNotNull();
    }
  }

  @Test
  void the_program_of_the_debian_package_gives_the_same_files_behind_the_same_checks()
      throws Exception {
    Path program = Path.of("/usr/bin/7zz");
    Path archive = temp.resolve("a.7z");
    Files.createSymbolicLink(source.resolve("link.txt"), Path.of("data/readme.txt"));
    hashes.put("link.txt", hashes.get("data/readme.txt"));
    run(List.of("7zz", "a", "-snl", "-bso0", "{a}", "."), archive, source);
    assertThat(unpacked(archive, Optional.of(program))).isEqualTo(hashes);
    assertThat(unpacked(archive, Optional.empty())).isEqualTo(hashes);
    byte[] bytes = Files.readAllBytes(archive);
    bytes[bytes.length / 2] ^= 1;
    Files.write(archive, bytes);
    ArchiveException e =
        catchThrowableOfType(ArchiveException.class, () -> unpacked(archive, Optional.of(program)));
    assertThat(e.getMessage()).contains("the archive");
  }

  @Test
  void a_7z_that_wants_more_memory_is_refused_with_that_reason_or_goes_to_the_program()
      throws Exception {
    Path archive = temp.resolve("big.7z");
    put("large.bin", noise(new Random(3), 9_000_000));
    run(List.of("7zz", "a", "-bso0", "-m0=LZMA2:d=12m", "{a}", "."), archive, source);
    Path out = Files.createTempDirectory(temp, "out");
    DecoderMemory little = new DecoderMemory(4 * 1024);
    ArchiveException e =
        catchThrowableOfType(
            ArchiveException.class,
            () ->
                new Unpacker(ArchiveLimits.DEFAULT, little, Optional.empty())
                    .unpack(archive, "big.7z", out, n -> true, (d, t) -> {}));
    assertThat(e.problems().get(0).reason()).contains("MiB of memory");
    assertThat(e.problems().get(0).remedy()).contains("7zip");
    Path again = Files.createTempDirectory(temp, "out");
    assertThat(
            new Unpacker(ArchiveLimits.DEFAULT, little, Optional.of(Path.of("/usr/bin/7zz")))
                .unpack(archive, "big.7z", again, n -> true, (d, t) -> {}))
        .hasSize(hashes.size());
  }

  @Test
  void a_folder_is_packed_to_the_same_bytes_each_time_and_unzip_finds_it_sound() throws Exception {
    Path first = temp.resolve("1.zip"), second = temp.resolve("2.zip");
    try (var out = Files.newOutputStream(first)) {
      FolderPacker.pack(source, out);
    }
    Files.setLastModifiedTime(
        source.resolve("empty.txt"), java.nio.file.attribute.FileTime.fromMillis(0));
    try (var out = Files.newOutputStream(second)) {
      FolderPacker.pack(source, out);
    }
    assertThat(first).hasSameBinaryContentAs(second);
    run(List.of("unzip", "-tq", "{a}"), first, temp);
    assertThat(unpacked(first, Optional.empty())).isEqualTo(hashes);
  }

  /** The check value of CRC-32/ISO-HDLC in the catalogue of parametrised CRC algorithms. */
  @Test
  void the_checksum_is_the_one_that_zip_means() {
    CRC32 crc = new CRC32();
    crc.update("123456789".getBytes(StandardCharsets.US_ASCII));
    assertThat(crc.getValue()).isEqualTo(0xCBF43926L);
  }
}
