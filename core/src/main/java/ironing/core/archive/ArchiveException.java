package ironing.core.archive;

import ironing.core.IroningException;
import ironing.core.Problem;
import java.util.List;

/** An archive that was refused whole. The reason names the entry where there is one. */
public final class ArchiveException extends IroningException {
  private static final long serialVersionUID = 1;

  private ArchiveException(Problem p, Throwable cause) {
    super(List.of(p), cause);
  }

  /** Whether an entry was refused, as opposed to an archive that is of no known kind or damaged. */
  boolean isHarm() {
    return problems().get(0).code().equals("archive-entry-refused");
  }

  static ArchiveException notReadable(
      String archive, String reason, String remedy, Throwable cause) {
    return new ArchiveException(new Problem("archive-unreadable", archive, reason, remedy), cause);
  }

  static ArchiveException broken(String archive, String reason, Throwable cause) {
    return notReadable(
        archive, reason, "Download it again: it did not arrive whole, or was made badly.", cause);
  }

  static ArchiveException entry(String archive, String entry, String reason) {
    return new ArchiveException(
        new Problem(
            "archive-entry-refused",
            archive,
            "The entry “" + entry + "” cannot be accepted: " + reason + ".",
            "Nothing of the archive was unpacked. Ask its author for a sound one."),
        null);
  }

  static ArchiveException encrypted(String archive, String entry) {
    return new ArchiveException(
        new Problem(
            "archive-encrypted",
            archive,
            "The entry “" + entry + "” is encrypted.",
            "Unpack it with its password, pack it again without one, and bring that in."),
        null);
  }
}
