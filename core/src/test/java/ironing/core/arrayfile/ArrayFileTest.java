package ironing.core.arrayfile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.arrayfile.ArrayFileReader.DamagedException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ArrayFileTest {
  @TempDir Path temp;

  /** Arrays of every kind, some longer than a block and some that end just at its end. */
  @Property(tries = 60, seed = "8160")
  void what_was_written_is_read(@ForAll @IntRange(max = 100_000) int seed) throws IOException {
    Path file = Files.createTempFile("kept", "");
    try {
      Random random = new Random(seed);
      List<Object> written = new ArrayList<>();
      try (ArrayFileWriter out = new ArrayFileWriter(file)) {
        for (int n = random.nextInt(12); n > 0; n--) written.add(any(out, random));
        out.finish();
      }
      try (ArrayFileReader in = new ArrayFileReader(file)) {
        for (Object w : written) assertThat(next(in, w)).isEqualTo(w);
        assertThatThrownBy(in::ints).as("nothing follows").isInstanceOf(DamagedException.class);
      }
    } finally {
      Files.delete(file);
    }
  }

  private static int length(Random random) {
    return switch (random.nextInt(4)) {
      case 0 -> random.nextInt(5);
      case 1 -> random.nextInt(5_000);
      // about what a block holds of bytes, of ints, of longs
      case 2 -> (ArrayFileWriter.BLOCK >> random.nextInt(4)) - random.nextInt(20);
      default -> random.nextInt(3 * ArrayFileWriter.BLOCK / 8);
    };
  }

  private static Object any(ArrayFileWriter out, Random random) throws IOException {
    int length = length(random);
    switch (random.nextInt(5)) {
      case 0 -> {
        byte[] bytes = new byte[length];
        random.nextBytes(bytes);
        out.bytes(bytes);
        return bytes;
      }
      case 1 -> {
        int[] ints = random.ints(length).toArray();
        out.ints(ints);
        return ints;
      }
      case 2 -> {
        long[] longs = random.longs(length).toArray();
        out.longs(longs);
        return longs;
      }
      case 3 -> {
        List<String> texts =
            random
                .ints(length % 3_000)
                .mapToObj(i -> "ä" + Integer.toString(i, 36).repeat(i & 3))
                .toList();
        out.texts(texts);
        return texts;
      }
      default -> {
        int[][] rows = new int[length % 3_000][];
        for (int r = 0; r < rows.length; r++) rows[r] = random.ints(random.nextInt(50)).toArray();
        out.rows(rows);
        return rows;
      }
    }
  }

  private static Object next(ArrayFileReader in, Object written) throws IOException {
    if (written instanceof byte[]) return in.bytes();
    if (written instanceof int[]) return in.ints();
    if (written instanceof long[]) return in.longs();
    return written instanceof int[][] ? in.rows() : in.texts();
  }

  @Test
  void part_of_an_array_is_written_as_one_of_that_length() throws IOException {
    Path file = temp.resolve("kept");
    try (ArrayFileWriter out = new ArrayFileWriter(file)) {
      out.ints(new int[] {7, 8, 9}, 2);
      out.bytes(new byte[] {1, 2, 3}, 1);
      out.text("Ölzeug");
      out.blobs(List.of(new byte[] {5}, new byte[] {}, new byte[] {6, 7}));
      out.finish();
    }
    try (ArrayFileReader in = new ArrayFileReader(file)) {
      assertThat(in.ints()).containsExactly(7, 8);
      assertThat(in.bytes()).containsExactly(1);
      assertThat(in.text()).isEqualTo("Ölzeug");
      assertThat(in.blobs()).containsExactly(new byte[] {5}, new byte[] {}, new byte[] {6, 7});
    }
  }

  /** RFC 3720, appendix B.4: the CRC-32C of 32 bytes of zeroes is aa 36 91 8a. */
  @Test
  void a_block_carries_the_checksum_that_the_standard_gives() throws IOException {
    Path file = temp.resolve("kept");
    try (ArrayFileWriter out = new ArrayFileWriter(file)) {
      // eight counts of nothing
      for (int n = 0; n < 8; n++) out.ints(new int[0]);
      out.finish();
    }
    assertThat(Files.readAllBytes(file))
        .isEqualTo(HexFormat.of().parseHex("20000000" + "aa36918a" + "00".repeat(32)));
  }

  @Test
  void a_file_with_one_bit_turned_or_its_end_missing_is_damaged() throws IOException {
    Path file = temp.resolve("kept");
    int[] ints = new Random(4).ints(ArrayFileWriter.BLOCK / 2).toArray();
    try (ArrayFileWriter out = new ArrayFileWriter(file)) {
      out.ints(ints);
      out.finish();
    }
    byte[] good = Files.readAllBytes(file);
    assertThat(good.length).as("two blocks and a bit").isGreaterThan(2 * ArrayFileWriter.BLOCK);
    Random random = new Random(5);
    for (int n = 0; n < 200; n++) {
      byte[] bad = good.clone();
      // the heads of the blocks too
      int at =
          n < 8
              ? n
              : n < 16
                  ? ArrayFileWriter.HEAD + ArrayFileWriter.BLOCK + n - 8
                  : random.nextInt(bad.length);
      bad[at] ^= (byte) (1 << random.nextInt(8));
      Files.write(file, bad);
      assertThatThrownBy(() -> read(file))
          .as("bit in byte %s", at)
          .isInstanceOf(DamagedException.class);
      Files.write(file, Arrays.copyOf(good, n < 8 ? n : random.nextInt(good.length)));
      assertThatThrownBy(() -> read(file)).isInstanceOf(DamagedException.class);
    }
    Files.write(file, good);
    assertThat(read(file)).isEqualTo(ints);
  }

  private static int[] read(Path file) throws IOException {
    try (ArrayFileReader in = new ArrayFileReader(file)) {
      return in.ints();
    }
  }
}
