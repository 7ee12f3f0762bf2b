package ironing.core.archive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import ironing.core.IroningException;
import ironing.core.archive.Unpacker.Unpacked;
import ironing.core.testkit.Archives;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.lifecycle.AfterTry;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class UnpackerTest {
  private static final Map<String, String> FILES =
      new LinkedHashMap<>(
          Map.of("data/a.txt", "hello", "data/deep/ö.txt", "", "b.bin", "x".repeat(100_000)));

  @TempDir Path temp;

  static Stream<Arguments> formats() {
    return Stream.of(
        Arguments.of("zip", Archives.zip(FILES)),
        Arguments.of("7z", Archives.sevenZ(FILES, null)),
        Arguments.of("tar.gz", Archives.tarGz(FILES)));
  }

  private List<Unpacked> unpack(byte[] archive) throws IOException {
    return unpack(archive, ArchiveLimits.DEFAULT);
  }

  private List<Unpacked> unpack(byte[] archive, ArchiveLimits limits) throws IOException {
    Path file = Files.write(temp.resolve("archive"), archive);
    Path out = Files.createDirectories(temp.resolve("out"));
    DecoderMemory memory = new DecoderMemory(DecoderMemory.DEFAULT_KIB);
    return new Unpacker(limits, memory, Optional.empty())
        .unpack(file, "the.archive", out, nested -> true, (done, total) -> {});
  }

  private ArchiveException refusal(byte[] archive) {
    return catchThrowableOfType(ArchiveException.class, () -> unpack(archive));
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("formats")
  void every_file_arrives_with_its_hash_known_by_content(String format, byte[] archive)
      throws IOException {
    List<Unpacked> files = unpack(archive);
    assertThat(files)
        .extracting(Unpacked::path)
        .containsExactlyInAnyOrderElementsOf(FILES.keySet());
    for (Unpacked f : files) {
      assertThat(Files.readString(temp.resolve("out").resolve(f.path())))
          .isEqualTo(FILES.get(f.path()));
      assertThat(f.sha256()).isEqualTo(ContentHash.of(FILES.get(f.path())));
      assertThat(f.sizeBytes()).isEqualTo(FILES.get(f.path()).length());
    }
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("formats")
  void cut_short_anywhere_it_is_refused_and_never_taken_for_whole(String format, byte[] archive) {
    for (int keep : List.of(3, 10, archive.length / 4, archive.length / 2, archive.length - 9)) {
      ArchiveException e = refusal(Arrays.copyOf(archive, keep));
      assertThat(e).as(format + " cut to " + keep).isNotNull();
      assertThat(e.problems().get(0).thing()).isEqualTo("the.archive");
      assertThat(e.problems().get(0).code()).isEqualTo("archive-unreadable");
      clear();
    }
  }

  @ParameterizedTest
  @CsvSource({
    "../evil.txt, leads elsewhere",
    "a/../../evil.txt, leads elsewhere",
    "/etc/evil, root of the disk",
    "C:/evil, drive",
    "a//b, empty step",
    "a/./b, leads elsewhere"
  })
  void an_entry_that_leads_outside_refuses_the_whole(String name, String why) {
    Map<String, String> files = new LinkedHashMap<>(Map.of("good.txt", "1"));
    files.put(name, "2");
    for (byte[] archive :
        List.of(Archives.zip(files), Archives.tarGz(files), Archives.sevenZ(files, null))) {
      ArchiveException e = refusal(archive);
      assertThat(e).isNotNull();
      assertThat(e.problems().get(0))
          .satisfies(
              p -> {
                assertThat(p.code()).isEqualTo("archive-entry-refused");
                assertThat(p.reason()).contains(why).contains(name);
                assertThat(p.remedy()).contains("Nothing of the archive was unpacked");
              });
      clear();
    }
    assertThat(temp.resolve("evil.txt")).doesNotExist();
    assertThat(temp.resolve("out/evil.txt")).doesNotExist();
  }

  private void clear() {
    try (Stream<Path> all = Files.walk(temp.resolve("out"))) {
      for (Path p : all.sorted((a, b) -> b.compareTo(a)).toList()) Files.delete(p);
    } catch (IOException e) {
      throw new IllegalStateException(e);
    }
  }

  @Test
  void a_link_inside_becomes_a_copy_and_one_leading_out_refuses_the_whole() throws IOException {
    unpack(Archives.zipWithLink("sub/link.txt", "../real.txt"));
    assertThat(temp.resolve("out/sub/link.txt")).hasContent("real").isRegularFile();
    clear();
    unpack(Archives.tarGzWith(TarConstants.LF_LINK, "hard.txt", "real.txt"));
    assertThat(temp.resolve("out/hard.txt")).hasContent("real");
    clear();
    for (String target : List.of("../outside", "/etc/passwd", "a/../../outside")) {
      assertThat(refusal(Archives.zipWithLink("link", target)).getMessage())
          .contains("links outside");
      clear();
      assertThat(refusal(Archives.tarGzWith(TarConstants.LF_SYMLINK, "link", target)).getMessage())
          .contains("links outside");
      clear();
    }
    assertThat(refusal(Archives.zipWithLink("loop", "loop")).getMessage())
        .contains("no file of the archive");
  }

  @Test
  void a_device_is_refused() {
    for (byte kind : new byte[] {TarConstants.LF_CHR, TarConstants.LF_BLK, TarConstants.LF_FIFO}) {
      assertThat(refusal(Archives.tarGzWith(kind, "dev", null)).getMessage())
          .contains("device")
          .contains("dev");
      clear();
    }
  }

  @Test
  void an_encrypted_entry_is_named_with_what_to_do() {
    byte[] zip = Archives.zip(Map.of("secret.txt", "s"));
    // general purpose bit 0 in the local header and in the central directory (APPNOTE.TXT, 4.4.4)
    zip[6] |= 1;
    for (int i = 0; i < zip.length - 8; i++)
      if (zip[i] == 'P' && zip[i + 1] == 'K' && zip[i + 2] == 1 && zip[i + 3] == 2) zip[i + 8] |= 1;
    assertThat(refusal(zip).problems().get(0))
        .satisfies(
            p -> {
              assertThat(p.code()).isEqualTo("archive-encrypted");
              assertThat(p.reason()).contains("secret.txt");
              assertThat(p.remedy()).contains("password");
            });
    clear();
    assertThat(refusal(Archives.sevenZ(Map.of("secret.txt", "s"), "pw")).problems().get(0).code())
        .isEqualTo("archive-encrypted");
  }

  @Test
  void a_wrong_checksum_names_the_entry() {
    byte[] zip = Archives.zip(Map.of("a.txt", "hello"));
    for (int i = 0; i < zip.length - 20; i++)
      if (zip[i] == 'P' && zip[i + 1] == 'K' && zip[i + 2] == 1 && zip[i + 3] == 2)
        zip[i + 16] ^= 1;
    assertThat(refusal(zip).getMessage()).contains("a.txt").contains("checksum");
  }

  @Test
  void a_tar_whose_header_has_a_wrong_checksum_is_refused() throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (TarArchiveOutputStream tar = new TarArchiveOutputStream(out)) {
      TarArchiveEntry e = new TarArchiveEntry("a.txt");
      e.setSize(1);
      tar.putArchiveEntry(e);
      tar.write('x');
      tar.closeArchiveEntry();
    }
    byte[] tar = out.toByteArray();
    assertThat(unpack(tar)).hasSize(1);
    clear();
    // POSIX.1-1988 (ustar): the name stands at 0, its header's sum at 148
    tar[0] = 'b';
    assertThat(refusal(tar).getMessage()).contains("b.txt").contains("checksum of its header");
  }

  @Test
  void a_name_marked_as_utf8_that_is_none_is_refused_and_never_read_as_another() {
    byte[] zip = Archives.zip(Map.of("blå.txt", "x"));
    byte[] name = "blå.txt".getBytes(StandardCharsets.UTF_8);
    for (int i = 0; i + name.length <= zip.length; i++)
      if (Arrays.equals(zip, i, i + name.length, name, 0, name.length)) zip[i + 3] = (byte) 0xff;
    assertThat(refusal(zip).getMessage()).contains("marked as UTF-8");
  }

  @Test
  void a_name_that_begins_here_is_the_same_in_every_format() throws IOException {
    assertThat(unpack(Archives.zip(Map.of("./maps/a.map", "a", "././b.map", "b"))))
        .extracting(Unpacked::path)
        .containsExactlyInAnyOrder("maps/a.map", "b.map");
    clear();
    assertThat(refusal(Archives.zip(Map.of("./../x", "x")))).isNotNull();
  }

  @Test
  void what_is_no_archive_says_which_are_read() {
    assertThat(refusal("just text".getBytes(StandardCharsets.UTF_8)).problems().get(0))
        .satisfies(
            p -> {
              assertThat(p.reason()).contains("not an archive");
              assertThat(p.remedy()).contains("Zip, 7z and tar (plain");
            });
    assertThat(refusal(new byte[0]).getMessage()).contains("empty");
  }

  @Test
  void a_name_that_is_file_and_folder_or_stands_twice_is_refused() {
    Map<String, String> both = new LinkedHashMap<>();
    both.put("a", "file");
    both.put("a/b", "below it");
    assertThat(refusal(Archives.zip(both)).getMessage()).contains("both a file and a folder");
    clear();
    Map<String, String> twice = new LinkedHashMap<>();
    twice.put("same.txt", "1");
    twice.put("./same.txt", "2");
    assertThat(refusal(Archives.tarGz(twice)).getMessage()).contains("twice");
  }

  @Test
  void a_bomb_is_stopped_at_the_limit_links_included() {
    byte[] big = Archives.zip(Map.of("zeros", "0".repeat(5_000_000)));
    ArchiveLimits tight = new ArchiveLimits(10, 1 << 20, 100);
    assertThatThrownBy(() -> unpack(big, tight))
        .isInstanceOf(ArchiveException.class)
        .hasMessageContaining("unfolds to more than");
    clear();
    assertThatThrownBy(
            () ->
                unpack(
                    Archives.zip(Map.of("a", "1", "b", "2", "c", "3")),
                    new ArchiveLimits(1000, 1 << 30, 1)))
        .hasMessageContaining("more than 1 entries");
    clear();
    assertThatThrownBy(() -> unpack(Archives.zipWithLinks(100_000, 20), tight))
        .as("20 copies of 100 kB")
        .hasMessageContaining("unfolds");
  }

  @Test
  void old_names_without_a_mark_are_read_as_code_page_437() throws IOException {
    assertThat(unpack(Archives.zipInCodePage437("blå.txt", "x")))
        .extracting(Unpacked::path)
        .containsExactly("blå.txt");
  }

  @Test
  void an_archive_inside_becomes_a_folder_and_one_inside_that_stays_a_file() throws IOException {
    byte[] innermost = Archives.zip(Map.of("c.txt", "3"));
    byte[] inner = Archives.zipOf(Map.of("b.txt", Archives.bytes("2"), "deep.zip", innermost));
    List<Unpacked> files =
        unpack(Archives.zipOf(Map.of("a.txt", Archives.bytes("1"), "data/in.zip", inner)));
    assertThat(files)
        .extracting(Unpacked::path)
        .containsExactlyInAnyOrder("a.txt", "data/in.zip/b.txt", "data/in.zip/deep.zip");
    assertThat(temp.resolve("out/data/in.zip/b.txt")).hasContent("2");
    assertThat(temp.resolve("out/data/in.zip/deep.zip")).hasBinaryContent(innermost);
  }

  @Test
  void a_damaged_archive_inside_stays_a_file_and_a_harmful_one_refuses_the_whole()
      throws IOException {
    byte[] inner = Archives.zip(Map.of("b.txt", "2".repeat(500)));
    byte[] cut = Arrays.copyOf(inner, inner.length / 2);
    assertThat(unpack(Archives.zipOf(Map.of("in.zip", cut))))
        .extracting(Unpacked::path)
        .containsExactly("in.zip");
    assertThat(temp.resolve("out/in.zip")).hasBinaryContent(cut);
    clear();
    byte[] harmful = Archives.zip(Map.of("../evil.txt", "x"));
    assertThat(refusal(Archives.zipOf(Map.of("in.zip", harmful))).getMessage())
        .contains("in.zip/../evil.txt");
  }

  @Test
  void several_at_once_share_the_memory_and_all_arrive() throws Exception {
    DecoderMemory memory = new DecoderMemory(20 * 1024);
    Unpacker unpacker = new Unpacker(ArchiveLimits.DEFAULT, memory, Optional.empty());
    Path file = Files.write(temp.resolve("a"), Archives.zip(FILES));
    ExecutorService workers = Executors.newFixedThreadPool(8);
    List<Future<List<Unpacked>>> all = new ArrayList<>();
    for (int i = 0; i < 24; i++) {
      Path out = Files.createDirectories(temp.resolve("out" + i));
      all.add(
          workers.submit(
              () -> unpacker.unpack(file, "a", out, nested -> true, (done, total) -> {})));
    }
    for (Future<List<Unpacked>> f : all) assertThat(f.get()).hasSize(FILES.size());
    workers.shutdown();
  }

  @Test
  void whoever_listens_to_the_progress_can_end_the_work() throws IOException {
    Path file = Files.write(temp.resolve("archive"), Archives.zip(FILES));
    Path out = Files.createDirectories(temp.resolve("out"));
    assertThatThrownBy(
            () ->
                Unpacker.plain()
                    .unpack(
                        file,
                        "x",
                        out,
                        nested -> true,
                        (done, total) -> {
                          throw new CancellationException();
                        }))
        .isInstanceOf(CancellationException.class);
  }

  @AfterTry
  void emptyTheFolder() {
    if (propertyRoot != null) removeTree(propertyRoot);
  }

  private Path propertyRoot;

  @Property(tries = 3000, seed = "8160")
  void no_name_whatever_writes_outside(@ForAll String name) throws IOException {
    propertyRoot = Files.createTempDirectory("unpack");
    Path out = Files.createDirectory(propertyRoot.resolve("out"));
    Path file =
        Files.write(
            propertyRoot.resolve("archive"),
            Archives.tarGz(Map.of(name.isEmpty() ? "x" : name, "1")));
    try {
      Unpacker.plain().unpack(file, "x", out, nested -> true, (done, total) -> {});
    } catch (IroningException refused) {
      assertThat(refused.problems()).isNotEmpty();
    }
    try (Stream<Path> beside = Files.list(propertyRoot)) {
      assertThat(beside).containsExactlyInAnyOrder(out, file);
    }
  }

  private static void removeTree(Path root) {
    try (Stream<Path> all = Files.walk(root)) {
      for (Path p : all.sorted((a, b) -> b.compareTo(a)).toList()) Files.delete(p);
    } catch (IOException e) {
      throw new IllegalStateException(e);
    }
  }
}
