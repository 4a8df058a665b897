#include "app/session/settings.h"

#include <QDir>
#include <QFileInfo>
#include <QLocale>
#include <QSettings>

#include <algorithm>

#include "app/widgets/figures.h"
#include "app/widgets/speech.h"
#include "files/languages.h"

namespace orthema::app {

namespace {

constexpr int most_places = 100;

QSettings opened(const QString& file) { return QSettings(file, QSettings::IniFormat); }

template <class T>
void to_front(SharedList<T>& list, const std::string& id) {
    const auto at = std::find_if(list.all().begin(), list.all().end(), [&](const T& t) { return t.id == id; });
    const auto place = at - list.all().begin();
    if (place > 0 && at != list.all().end()) std::rotate(list.own().begin(), list.own().begin() + place, list.own().begin() + place + 1);
}

int whole_percent(const QSettings& in) { return std::clamp(in.value(QStringLiteral("window/size"), 100).toInt(), 100, 200); }

}  // namespace

Liked usual_liked() {
    Liked out;
    const QLocale here = QLocale::system();
    if (here.measurementSystem() != QLocale::MetricSystem) out.unit = Unit::inch;
    const QLocale::Territory land = here.territory();
    if (land == QLocale::UnitedStates || land == QLocale::Canada || land == QLocale::Mexico) out.paper = Paper::letter;
    out.fahrenheit = land == QLocale::UnitedStates;
    return out;
}

Settings::Settings(QString liked_file, QString memory_file, QObject* parent)
    : QObject(parent), liked_file_(std::move(liked_file)), memory_file_(std::move(memory_file)), liked_(usual_liked()) {
    const QSettings in = opened(liked_file_);
    const auto text = [&](const char* key) { return in.value(QString::fromLatin1(key)).toString(); };
    if (in.contains(QStringLiteral("order/unit"))) liked_.unit = text("order/unit") == QLatin1String("in") ? Unit::inch : Unit::mm;
    if (in.contains(QStringLiteral("order/paper")))
        liked_.paper = text("order/paper") == QLatin1String("letter") ? Paper::letter : Paper::a4;
    if (in.contains(QStringLiteral("order/heat"))) liked_.fahrenheit = text("order/heat") == QLatin1String("F");
    liked_.currency = text("order/currency").left(8);
    liked_.hourly = std::clamp(in.value(QStringLiteral("order/hour"), liked_.hourly).toDouble(), 0.0, 100000.0);
    liked_.medium = text("order/medium").toStdString();
    liked_.press = text("order/press").toStdString();
    liked_.language = text("window/language").left(2);
    liked_.size_percent = whole_percent(in);
    liked_.quiet = in.value(QStringLiteral("window/quiet"), false).toBool();
    liked_.dark_card = in.value(QStringLiteral("press/dark"), false).toBool();
    liked_.sound = in.value(QStringLiteral("press/sound"), true).toBool();
}

int Settings::size_percent(const QString& liked_file) { return whole_percent(opened(liked_file)); }

const Language* Settings::language(const QString& liked_file) {
    const QString liked = opened(liked_file).value(QStringLiteral("window/language")).toString();
    if (!liked.isEmpty()) return shipped_language(liked.toStdString());
    for (const QString& code : QLocale::system().uiLanguages()) {
        if (code == QLatin1String("C") || code.startsWith(QLatin1String("en"))) return nullptr;
        if (const Language* spoken = shipped_language(code.toStdString())) return spoken;
    }
    return nullptr;
}

std::optional<QString> Settings::like(const Liked& liked) {
    if (liked == liked_) return std::nullopt;
    liked_ = liked;
    QDir().mkpath(QFileInfo(liked_file_).absolutePath());
    QSettings out = opened(liked_file_);
    out.setValue(QStringLiteral("order/unit"), liked.unit == Unit::inch ? QStringLiteral("in") : QStringLiteral("mm"));
    out.setValue(QStringLiteral("order/paper"), liked.paper == Paper::letter ? QStringLiteral("letter") : QStringLiteral("a4"));
    out.setValue(QStringLiteral("order/heat"), liked.fahrenheit ? QStringLiteral("F") : QStringLiteral("C"));
    out.setValue(QStringLiteral("order/currency"), liked.currency);
    out.setValue(QStringLiteral("order/hour"), liked.hourly);
    out.setValue(QStringLiteral("order/medium"), qt(liked.medium));
    out.setValue(QStringLiteral("order/press"), qt(liked.press));
    out.setValue(QStringLiteral("window/language"), liked.language);
    out.setValue(QStringLiteral("window/size"), liked.size_percent);
    out.setValue(QStringLiteral("window/quiet"), liked.quiet);
    out.setValue(QStringLiteral("press/dark"), liked.dark_card);
    out.setValue(QStringLiteral("press/sound"), liked.sound);
    out.sync();
    emit changed();
    if (out.status() != QSettings::NoError)
        return tr("The settings hold until the program ends: %1 cannot be written.").arg(QDir::toNativeSeparators(liked_file_));
    return std::nullopt;
}

void Settings::begin(Order& fresh) const {
    fresh.unit = liked_.unit;
    fresh.paper = liked_.paper;
    fresh.currency = liked_.currency.toStdString();
    fresh.hourly = liked_.hourly;
    fresh.press_run.fahrenheit = liked_.fahrenheit;
    to_front(fresh.media, liked_.medium);
    to_front(fresh.presses, liked_.press);
}

QVariant Settings::remembered(const QString& what) const { return opened(memory_file_).value(what); }

void Settings::remember(const QString& what, const QVariant& value) {
    QDir().mkpath(QFileInfo(memory_file_).absolutePath());
    opened(memory_file_).setValue(what, value);
}

QVariantMap Settings::place_in(const std::string& job) const {
    for (const QVariant& one : remembered(QStringLiteral("places")).toList())
        if (one.toMap().value(QStringLiteral("order")).toString() == qt(job)) return one.toMap();
    return {};
}

void Settings::remember_place(const std::string& job, const QVariantMap& place) {
    QVariantList all = remembered(QStringLiteral("places")).toList();
    all.removeIf([&](const QVariant& one) { return one.toMap().value(QStringLiteral("order")).toString() == qt(job); });
    QVariantMap own = place;
    own[QStringLiteral("order")] = qt(job);
    all.prepend(own);
    while (all.size() > most_places) all.removeLast();
    remember(QStringLiteral("places"), all);
}

}  // namespace orthema::app
