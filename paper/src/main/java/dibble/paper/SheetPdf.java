package dibble.paper;

import com.openhtmltopdf.extend.FSTextBreaker;
import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder.PdfAConformance;
import com.openhtmltopdf.util.XRLog;
import dibble.midi.MiddleC;
import dibble.sheet.Sheet;
import java.awt.color.ColorSpace;
import java.awt.color.ICC_Profile;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.text.BreakIterator;

/** A sheet as PDF: the faces are embedded, and its text can be searched and copied. */
public final class SheetPdf {
    private static final int REGULAR = 400;
    private static final int BOLD = 700;

    static {
        XRLog.setLoggingEnabled(false);
    }

    private SheetPdf() {}

    /**
     * Writes a sheet.
     *
     * @param middleC by which octaves are numbered under keyboards
     * @throws IOException where it cannot be written there
     */
    public static void write(Sheet sheet, MiddleC middleC, PaperSize paper, OutputStream to) throws IOException {
        PdfRendererBuilder builder = new PdfRendererBuilder();
        face(builder, "DibbleSans-Regular", "Dibble Sans", REGULAR);
        face(builder, "DibbleSans-Bold", "Dibble Sans", BOLD);
        face(builder, "DibbleSerif-Regular", "Dibble Serif", REGULAR);
        // A sheet has all that it needs in itself: whatever a name in it looks like, nothing is fetched.
        builder.useUriResolver((base, uri) -> null);
        // Only faces of our own: no face of this machine is looked for, and the paper looks the same everywhere.
        builder.usePdfAConformance(PdfAConformance.PDFA_2_U);
        builder.useColorProfile(ICC_Profile.getInstance(ColorSpace.CS_sRGB).getData());
        builder.useUnicodeLineBreaker(new BreaksAtSpaces());
        builder.withProducer("Dibble");
        builder.withHtmlContent(SheetHtml.of(sheet, middleC, paper), null);
        builder.toStream(to);
        builder.run();
    }

    /** Lines are broken at spaces alone, so that {@code F♯3–E7} stays together. */
    private static final class BreaksAtSpaces implements FSTextBreaker {
        private String text = "";
        private int at;

        @Override
        public void setText(String next) {
            text = next;
            at = 0;
        }

        @Override
        public int next() {
            int space = at >= text.length() ? -1 : text.indexOf(' ', at);
            at = space < 0 ? text.length() : space + 1;
            return space < 0 ? BreakIterator.DONE : at;
        }
    }

    private static void face(PdfRendererBuilder builder, String file, String family, int weight) {
        builder.useFont(() -> font(file), family, weight, FontStyle.NORMAL, true);
    }

    /** The file of a face that ships with Dibble, as TrueType. */
    public static InputStream font(String file) {
        InputStream in = SheetPdf.class.getResourceAsStream("fonts/" + file + ".ttf");
        if (in == null) {
            throw new IllegalStateException("the face " + file + " is missing from this build");
        }
        return in;
    }
}
