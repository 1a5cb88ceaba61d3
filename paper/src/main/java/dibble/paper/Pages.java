package dibble.paper;

import java.awt.image.BufferedImage;
import java.awt.print.PrinterException;
import java.awt.print.PrinterJob;
import java.io.IOException;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.printing.PDFPageable;
import org.apache.pdfbox.rendering.ImageType;
import org.apache.pdfbox.rendering.PDFRenderer;

/** The pages of a PDF, for display and printing. Confined to one thread at a time. */
public final class Pages implements AutoCloseable {
    private static final float POINTS_AN_INCH = 72;

    private final PDDocument document;

    /** @throws IOException where it is no PDF that can be read */
    public Pages(byte[] pdf) throws IOException {
        document = Loader.loadPDF(pdf);
    }

    /** Returns the number of pages. */
    public int count() {
        return document.getNumberOfPages();
    }

    /**
     * A page as a picture.
     *
     * @param page from 0
     * @param width in pixels
     * @param grey as a printer without colours would show it
     */
    public BufferedImage picture(int page, int width, boolean grey) throws IOException {
        float inches = document.getPage(page).getMediaBox().getWidth() / POINTS_AN_INCH;
        return new PDFRenderer(document)
                .renderImageWithDPI(page, width / inches, grey ? ImageType.GRAY : ImageType.RGB);
    }

    /** Returns true if this machine knows a printer. */
    public static boolean canPrint() {
        return PrinterJob.lookupPrintServices().length > 0;
    }

    /**
     * Prints all pages on the system's usual printer.
     *
     * @param name as it is called in the printer's list
     * @throws PrinterException where the printer refuses
     */
    public void print(String name) throws PrinterException {
        PrinterJob job = PrinterJob.getPrinterJob();
        job.setJobName(name);
        job.setPageable(new PDFPageable(document));
        job.print();
    }

    @Override
    public void close() throws IOException {
        document.close();
    }
}
