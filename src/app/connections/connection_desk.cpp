#include "connections/connection_desk.h"

#include <QFileInfo>
#include <algorithm>
#include <cmath>

#include "formats/file.h"
#include "model/edits.h"
#include "widgets/text.h"

namespace talvik::app {

const std::vector<std::shared_ptr<const design::ConnectionDesign>>& ConnectionDesk::all() const {
    static const std::vector<std::shared_ptr<const design::ConnectionDesign>> none;
    const auto d = session_.floorDesign();
    return d && session_.floor() ? d->connections : none;  // the session keeps the answer
}

const design::ConnectionDesign* ConnectionDesk::inHand() const {
    const auto& s = session_.selection();
    if (!s || s->part.kind != model::PartKind::Connection) return nullptr;
    for (const auto& c : all())
        if (c->part == s->part) return c.get();
    return nullptr;
}

void ConnectionDesk::select(const std::string& key) {
    if (key.empty() || !session_.floor()) return session_.select(std::nullopt);
    session_.select(Spot{{session_.floor()->id, model::PartKind::Connection, key}, Spot::In::Whole, {}});
}

std::string ConnectionDesk::at(model::Point p, double reach) const {
    std::string found;
    double least = reach;
    for (const auto& c : all()) {
        const auto& loaded = c->place.site.loaded;
        if (c->place.of == standards::PunchingPlace::Of::Column && c->site->members.size() > 1)
            continue;  // reached through the register, and through their own columns
        const double away = geometry::contains(loaded, p) ? 0 : geometry::distanceToEdge(loaded, p);
        if (away <= least) least = away, found = c->site->key;
    }
    return found;
}

void ConnectionDesk::walk(double dx, double dy) {
    const auto* now = inHand();
    if (!now) return next(1);
    const design::ConnectionDesign* best = nullptr;
    double least = 1e300;
    for (const auto& c : all()) {
        const double x = c->place.middle.x - now->place.middle.x, y = c->place.middle.y - now->place.middle.y;
        const double along = x * dx + y * dy, off = std::abs(x * dy - y * dx);
        if (c.get() == now || along < 1 || off > 2 * along) continue;
        if (along + 2 * off < least) least = along + 2 * off, best = c.get();
    }
    if (best) select(best->site->key);
}

void ConnectionDesk::next(int by) {
    std::vector<const design::ConnectionDesign*> order;
    for (const auto& c : all()) order.push_back(c.get());
    if (order.empty()) return;
    std::stable_sort(order.begin(), order.end(),
                     [](const auto* a, const auto* b) { return a->worst() > b->worst(); });
    const auto at = std::find(order.begin(), order.end(), inHand());
    const long n = long(order.size());
    const long i = at == order.end() ? (by > 0 ? 0 : n - 1) : ((at - order.begin()) + by + n) % n;
    select(order[std::size_t(i)]->site->key);
}

void ConnectionDesk::setSteel(const std::vector<std::string>& keys, Steel steel) {
    if (!session_.floor() || keys.empty()) return;
    session_.apply(
        steel == Steel::None ? tr("No shear reinforcement") : tr("Shear reinforcement: %1").arg(name(steel)),
        model::setShearSteel(session_.base(), session_.floor()->id, keys, steel, 0));
}

void ConnectionDesk::setDiameter(const std::vector<std::string>& keys, double diameter) {
    if (!session_.floor()) return;
    session_.apply(
        tr("Diameter of shear reinforcement"),
        model::editFloor(session_.base(), session_.floor()->id, [&](model::Floor& f, model::Project&) {
            for (auto& c : f.punching.choices)
                if (std::find(keys.begin(), keys.end(), c.connection) != keys.end()) c.diameter = diameter;
        }));
}

void ConnectionDesk::setPinned(const std::vector<std::string>& keys, bool pinned) {
    if (!session_.floor()) return;
    session_.apply(pinned ? tr("Column size fixed") : tr("Column size free"),
                   model::editConnections(session_.base(), session_.floor()->id, keys,
                                          [&](auto& c) { c.pinned = pinned; }));
}

bool ConnectionDesk::hasSize(const std::string& key) const {
    const auto* f = session_.floor();
    return f && std::any_of(f->columns.begin(), f->columns.end(), [&](const auto& c) { return c.id == key; });
}

void ConnectionDesk::turnSteel() {
    const auto* c = inHand();
    if (!c) return;
    setSteel({c->site->key}, c->choice.steel == Steel::Solved  ? Steel::Studs
                             : c->choice.steel == Steel::Studs ? Steel::Links
                             : c->choice.steel == Steel::Links ? Steel::None
                                                               : Steel::Solved);
}

QString ConnectionDesk::loadStuds(const QString& path) {
    const auto file = formats::readTable(path.toStdString());
    if (!file.error.empty()) return qs(file.error);
    auto table = catalogs::readStudRails(file.text);
    if (!table.trouble.empty()) {
        QString all;
        for (std::size_t i = 0; i < table.trouble.size() && i < 4; ++i)
            all += qs(table.trouble[i]) + QStringLiteral(" ");
        if (table.trouble.size() > 4) all += tr("And %1 more.").arg(table.trouble.size() - 4);
        return all.trimmed();
    }
    model::Project next = session_.base();
    next.basis.studTable = QFileInfo(path).completeBaseName().toStdString();
    next.basis.studRails = std::move(table.rails);
    session_.apply(tr("Table of studs"), std::move(next));
    return {};
}

QString ConnectionDesk::name(Steel steel) {
    return steel == Steel::Studs    ? tr("studs on rails")
           : steel == Steel::Links  ? tr("links")
           : steel == Steel::Solved ? tr("automatic")
                                    : tr("none");
}

}  // namespace talvik::app
