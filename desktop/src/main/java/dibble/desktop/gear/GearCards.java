package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.checks.Finding;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Instrument;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.presentation.gear.GearPresenter;
import dibble.session.Session;
import dibble.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;

/** The cards of sources and instruments, one for each id: what changes is changed on the card that is there. */
final class GearCards {
    private static final Set<String> GEAR_CHECKS = Set.of("channel-clash", "no-channel-left", "port-missing");

    private final ViewContext desk;
    private final GearPresenter presenter;
    private final Runnable stale;
    private final Supplier<Node> beginnings;
    private final VBox sources = column();
    private final VBox instruments = column();
    private final Label sourceCount = Cards.soft("");
    private final Label partCount = Cards.soft("");
    private final Map<String, SourceCard> sourceCards = new HashMap<>();
    private final Map<String, InstrumentCard> instrumentCards = new HashMap<>();

    /**
     * @param stale marks the view as outdated
     * @param beginnings the content of an empty view
     */
    GearCards(ViewContext desk, GearPresenter presenter, Runnable stale, Supplier<Node> beginnings) {
        this.desk = desk;
        this.presenter = presenter;
        this.stale = stale;
        this.beginnings = beginnings;
    }

    private static VBox column() {
        VBox column = new VBox(10);
        column.getStyleClass().add("gear-column");
        return column;
    }

    VBox sources() {
        return sources;
    }

    VBox instruments() {
        return instruments;
    }

    /** Returns the number of sources, in words. */
    Label sourceCount() {
        return sourceCount;
    }

    Label partCount() {
        return partCount;
    }

    /** The card of a source, or null. */
    SourceCard source(String id) {
        return sourceCards.get(id);
    }

    void show() {
        Session session = desk.session();
        List<Finding> findings = desk.findings().now().stream()
                .filter(finding -> GEAR_CHECKS.contains(finding.code()))
                .toList();
        List<PartRef> row = presenter.selectedParts();
        String whole = row.isEmpty() ? desk.selection().instrument().get() : null;
        String source =
                row.isEmpty() && whole == null ? desk.selection().source().get() : null;
        List<Node> left = new ArrayList<>();
        for (Source each : session.sources()) {
            SourceCard card = sourceCards.computeIfAbsent(each.id(), id -> new SourceCard(desk, presenter, id));
            card.show(each, about(findings, each.id()));
            card.showSelected(Objects.equals(each.id(), source));
            left.add(card);
        }
        List<Node> right = new ArrayList<>();
        int all = session.instruments().stream()
                .mapToInt(instrument -> instrument.parts().size())
                .sum();
        for (Instrument each : session.instruments()) {
            InstrumentCard card =
                    instrumentCards.computeIfAbsent(each.id(), id -> new InstrumentCard(desk, presenter, id, stale));
            card.show(each, about(findings, each.id()), all);
            card.showSelected(row, each.id().equals(whole));
            right.add(card);
        }
        sourceCards.values().retainAll(left);
        instrumentCards.values().retainAll(right);
        if (left.isEmpty()) {
            left.add(empty(say("gear-cards.no-sources-yet-add-one")));
        }
        if (right.isEmpty()) {
            right.add(empty(say("gear-cards.no-instruments-yet-add-one")));
            if (session.sources().isEmpty()) {
                right.add(beginnings.get());
            }
        }
        Cards.put(sources, left);
        Cards.put(instruments, right);
        sourceCount.setText(say("gear-cards.sources", session.sources().size()));
        partCount.setText(
                say("gear-cards.instruments-parts", session.instruments().size(), all));
    }

    private static List<Finding> about(List<Finding> findings, String id) {
        return findings.stream()
                .filter(finding -> finding.ids().stream().anyMatch(it -> it.equals(id) || it.startsWith(id + "/")))
                .toList();
    }

    private static Label empty(String text) {
        Label label = Cards.soft(text);
        label.setWrapText(true);
        return label;
    }

    /** Updates the played and sounding notes. */
    void follow() {
        long now = Clock.SYSTEM.nanos();
        sourceCards.values().forEach(card -> card.follow(now));
        instrumentCards.values().forEach(InstrumentCard::follow);
    }
}
