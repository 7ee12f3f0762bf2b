package ironing.core.deploy;

import ironing.core.deploy.LaidOut.Stamp;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.concurrent.TimeUnit;

/** By what files are known again without being read: one question to the file system a file. */
public final class Stamps {
  private Stamps() {}

  /** What a file is known by; a link is not followed. */
  public static Stamp of(Path file) throws IOException {
    return of(Files.readAttributes(file, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS));
  }

  /** What a file is known by, from attributes that were read without following a link. */
  public static Stamp of(BasicFileAttributes a) {
    return new Stamp(a.lastModifiedTime().to(TimeUnit.NANOSECONDS), inode(a.fileKey()));
  }

  // as the JDK writes a key of a Unix file: (dev=fd01,ino=1234); asked for by name it costs thrice
  private static long inode(Object key) {
    if (key == null) return 0;
    String text = key.toString();
    int from = text.indexOf("ino=");
    if (from < 0) return 0;
    long inode = 0;
    for (int i = from + 4; i < text.length() && Character.isDigit(text.charAt(i)); i++)
      inode = inode * 10 + text.charAt(i) - '0';
    return inode;
  }
}
