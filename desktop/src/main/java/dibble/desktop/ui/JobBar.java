package dibble.desktop.ui;

import static dibble.presentation.UiText.say;

import dibble.presentation.Jobs;
import dibble.presentation.Subscription;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;

/** The running job with its progress and <em>Cancel</em>; short jobs are not shown. */
public final class JobBar extends HBox {
    private static final long SHOWN_AFTER = TimeUnit.MILLISECONDS.toNanos(150);

    private final ViewContext desk;
    private final Label words = new Label();
    private final ProgressBar bar = new ProgressBar();

    /** Takes no room while nothing is under way. */
    public JobBar(ViewContext desk) {
        this.desk = desk;
        setId("job");
        getStyleClass().addAll("ask-bar", "job-bar");
        words.setId("job-words");
        words.setMinWidth(USE_PREF_SIZE);
        bar.setId("job-progress");
        bar.setPrefWidth(240);
        getChildren().addAll(words, bar, Cards.button("job-cancel", say("common.cancel"), this::cancel));
        Cards.show(this, false);
    }

    /** Starts showing jobs. */
    public Subscription open() {
        return desk.pulse().each(this::follow);
    }

    private void cancel() {
        desk.jobs().running().ifPresent(job -> {
            boolean cancelled = job.cancel();
            desk.ask()
                    .tell(say(
                            cancelled ? "job-bar.cancelled-nothing-was-changed" : "job-bar.too-late-to-cancel",
                            job.words()));
        });
    }

    private void follow() {
        Jobs.Job job =
                desk.jobs().running().filter(it -> it.age() > SHOWN_AFTER).orElse(null);
        if ((job != null) != isVisible()) {
            Cards.show(this, job != null);
        }
        if (job != null) {
            words.setText(job.words() + "…");
            bar.setProgress(job.share());
            setAccessibleText(job.words());
        }
    }
}
