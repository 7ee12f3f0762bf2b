package ironing.demo;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;

/**
 * Draws the demo's textures from three lines: {@code size 64x32}, {@code pattern planks}, {@code
 * colours a b}.
 */
final class DrawnImage {
  private DrawnImage() {}

  static byte[] png(List<String> lines) throws IOException {
    Map<String, String> art = new HashMap<>();
    for (String l : lines)
      if (l.indexOf(' ') > 0)
        art.put(l.substring(0, l.indexOf(' ')), l.substring(l.indexOf(' ') + 1));
    String[] size = art.get("size").split("x");
    String[] colours = art.get("colours").split(" ");
    BufferedImage image =
        new BufferedImage(
            Integer.parseInt(size[0]), Integer.parseInt(size[1]), BufferedImage.TYPE_INT_RGB);
    Graphics2D g = image.createGraphics();
    g.setColor(colour(colours[0]));
    g.fillRect(0, 0, image.getWidth(), image.getHeight());
    g.setColor(colour(colours[1]));
    pattern(art.get("pattern"), g, image.getWidth(), image.getHeight());
    g.dispose();
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ImageIO.write(image, "png", out);
    return out.toByteArray();
  }

  private static void pattern(String name, Graphics2D g, int w, int h) {
    switch (name) {
      case "planks" -> {
        for (int y = 0; y < h; y += 8) g.drawLine(0, y, w, y);
        for (int y = 0; y < h; y += 8) g.drawLine((y * 7) % w, y, (y * 7) % w, y + 8);
      }
      case "waves" -> {
        for (int y = 4; y < h; y += 10)
          for (int x = 0; x < w; x += 16) g.drawArc(x, y, 16, 8, 0, 180);
      }
      case "stones" -> {
        for (int y = 0; y < h; y += 10)
          for (int x = (y / 10 % 2) * 6; x < w; x += 12) g.drawRoundRect(x, y, 10, 8, 4, 4);
      }
      case "glow" -> {
        for (int r = Math.min(w, h) / 2; r > 0; r -= 4)
          g.drawOval(w / 2 - r, h / 2 - r, 2 * r, 2 * r);
      }
      case "plain" -> g.fillRect(w / 4, h / 4, w / 2, h / 2);
      default ->
          throw new IllegalArgumentException(
              "no pattern “" + name + "”: planks, waves, stones, glow or plain");
    }
  }

  private static Color colour(String hex) {
    String full = hex.length() == 3 ? hex.replaceAll("(.)", "$1$1") : hex;
    return new Color(Integer.parseInt(full, 16));
  }
}
