import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.RoundRectangle2D;
import java.awt.image.BufferedImage;
import java.io.File;
import java.io.IOException;
import javax.imageio.ImageIO;

/** Draws the icon: a pointed stick over a row of holes, one of them filled. {@code java tools/MakeIcon.java} makes all sizes. */
class MakeIcon {
    private static final int[] SIZES = {16, 24, 32, 48, 64, 128, 256};

    public static void main(String[] args) throws IOException {
        for (int size : SIZES) {
            File file = new File("desktop/src/main/resources/dibble/desktop/icon/icon-" + size + ".png");
            file.getParentFile().mkdirs();
            ImageIO.write(draw(size), "png", file);
        }
    }

    private static BufferedImage draw(int size) {
        BufferedImage image = new BufferedImage(size, size, BufferedImage.TYPE_INT_ARGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        g.transform(AffineTransform.getScaleInstance(size / 64.0, size / 64.0));
        g.setColor(new Color(0x2F6B3F));
        g.fill(new RoundRectangle2D.Double(2, 2, 60, 60, 18, 18));
        Color earth = new Color(0x1D4428);
        Color seed = new Color(0xF1D9A0);
        for (int i = 0; i < 4; i++) {
            g.setColor(i == 1 ? seed : earth);
            g.fill(new Ellipse2D.Double(8 + i * 13, 46, 9, 9));
        }
        g.setColor(new Color(0xFCF9F1));
        g.rotate(Math.toRadians(14), 38, 40);
        g.fill(new RoundRectangle2D.Double(29, 9, 18, 6, 5, 5));
        Path2D stick = new Path2D.Double();
        stick.moveTo(34.5, 13);
        stick.lineTo(41.5, 13);
        stick.lineTo(41.5, 33);
        stick.lineTo(38, 44);
        stick.lineTo(34.5, 33);
        stick.closePath();
        g.fill(stick);
        g.dispose();
        return image;
    }
}
