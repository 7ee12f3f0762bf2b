package ironing.server.workspace;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.archive.ContentHash;
import ironing.server.workspace.PackedFiles.File;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class PackedFilesTest {
  private static File file(String pack, String path, long size, String stored) {
    String sha = ContentHash.of((pack + path + size).getBytes(StandardCharsets.UTF_8));
    return new File(pack, path, size, sha, stored);
  }

  private static List<File> back(byte[] packed) {
    List<File> files = new ArrayList<>();
    PackedFiles.unpack(
        packed,
        (pack, path, length, size, from, offset, stored) ->
            files.add(
                new File(
                    pack,
                    new String(path, 0, length, StandardCharsets.UTF_8),
                    size,
                    HexFormat.of().formatHex(from, offset, offset + 32),
                    stored)));
    return files;
  }

  @Test
  void files_come_back_as_they_were() {
    List<File> files =
        List.of(
            file("", "data/a", 0, null),
            file("", "data/a/b", 127, null),
            file("", "data/ø/😀.tex", 128, "edited/3"),
            file("", "data/øø", Long.MAX_VALUE, null),
            file("data/p.crate", "data/x", 1, null),
            file("data/q.crate", "data/x", 1, null),
            file("data/q.crate", "data/" + "y".repeat(900), 70_000, null));
    assertThat(back(PackedFiles.pack(files))).isEqualTo(files);
    assertThat(back(PackedFiles.pack(List.of()))).isEmpty();
  }

  @Test
  void any_paths_in_any_order_come_back() {
    Random random = new Random(4);
    for (int round = 0; round < 200; round++) {
      List<File> files = new ArrayList<>();
      for (int i = 0; i < 30; i++) {
        StringBuilder path = new StringBuilder();
        // letters of one, two, three and four bytes, so that what repeats may end within one
        for (int k = random.nextInt(12); k >= 0; k--)
          path.append(
              List.of("a", "b", "/", "é", "è", "☃", "☂", "😀", "😁").get(random.nextInt(9)));
        String pack = random.nextInt(4) == 0 ? "p" + random.nextInt(3) : "";
        files.add(
            file(
                pack,
                path.toString(),
                random.nextLong(1L << 40),
                random.nextBoolean() ? null : "e" + i));
      }
      assertThat(back(PackedFiles.pack(files))).isEqualTo(files);
    }
  }

  @Test
  void what_repeats_of_a_path_takes_a_byte() {
    List<File> files = new ArrayList<>();
    for (int i = 0; i < 1_000; i++)
      files.add(
          file("", "data/textures/a-rather-long-folder/piece-%04d.tex".formatted(i), 100, null));
    assertThat(PackedFiles.pack(files).length).isLessThan(1_000 * 50);
  }
}
