package ironing.core.archive;

/**
 * How much an archive may unfold to before it is taken for a bomb.
 *
 * @param ratio unpacked bytes for each packed byte; counts only beyond {@code floorBytes}
 * @param floorBytes unpacked size that is always allowed
 * @param entries how many entries
 */
public record ArchiveLimits(long ratio, long floorBytes, int entries) {
  public ArchiveLimits {
    if (ratio < 1 || floorBytes < 0 || entries < 1) {
      throw new IllegalArgumentException(
          "no archive fits limits of " + ratio + ", " + floorBytes + ", " + entries);
    }
  }

  public static final ArchiveLimits DEFAULT = new ArchiveLimits(1000, 1L << 30, 2_000_000);
}
