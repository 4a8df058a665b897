// The fields of an order and of all that it holds, listed once.
#pragma once

#include "core/base/fields.h"
#include "core/order/order.h"

namespace orthema {

template <>
struct FieldsOf<Figure> {
    static constexpr auto list =
        std::tuple{Field{"value", &Figure::value},         Field{"source", &Figure::source}, Field{"published", &Figure::published},
                   Field{"readings", &Figure::readings},   Field{"errors", &Figure::errors}, Field{"date", &Figure::date},
                   Field{"preshrunk", &Figure::preshrunk}, Field{"batch", &Figure::batch}};
};
template <>
struct FieldsOf<StyleFeature> {
    static constexpr auto list = std::tuple{
        Field{"kind", &StyleFeature::kind},     Field{"face", &StyleFeature::face},           Field{"across", &StyleFeature::across},
        Field{"down", &StyleFeature::down},     Field{"width", &StyleFeature::width},         Field{"height", &StyleFeature::height},
        Field{"raised", &StyleFeature::raised}, Field{"clearance", &StyleFeature::clearance}, Field{"growth", &StyleFeature::growth}};
};
template <>
struct FieldsOf<BlankColour> {
    static constexpr auto list =
        std::tuple{Field{"name", &BlankColour::name}, Field{"ink", &BlankColour::ink}, Field{"inside", &BlankColour::inside}};
};
template <>
struct FieldsOf<BlankStyle> {
    static constexpr auto list = std::tuple{Field{"id", &BlankStyle::id},
                                            Field{"name", &BlankStyle::name},
                                            Field{"family", &BlankStyle::family},
                                            Field{"fabric", &BlankStyle::fabric},
                                            Field{"batch", &BlankStyle::batch},
                                            Field{"price", &BlankStyle::price},
                                            Field{"tolerance", &BlankStyle::tolerance},
                                            Field{"sizes", &BlankStyle::sizes},
                                            Field{"colours", &BlankStyle::colours},
                                            Field{"chart", &BlankStyle::chart},
                                            Field{"sample_size", &BlankStyle::sample_size},
                                            Field{"features", &BlankStyle::features},
                                            Field{"tags", &BlankStyle::tags},
                                            Field{"archived", &BlankStyle::archived},
                                            Field{"shrinks", &BlankStyle::shrinks},
                                            Field{"other_side", &BlankStyle::other_side}};
};
template <>
struct FieldsOf<Exclusion> {
    static constexpr auto list =
        std::tuple{Field{"name", &Exclusion::name}, Field{"along", &Exclusion::along}, Field{"across", &Exclusion::across},
                   Field{"length", &Exclusion::length}, Field{"breadth", &Exclusion::breadth}};
};
template <>
struct FieldsOf<StockItem> {
    static constexpr auto list =
        std::tuple{Field{"id", &StockItem::id},         Field{"name", &StockItem::name},   Field{"width", &StockItem::width},
                   Field{"length", &StockItem::length}, Field{"price", &StockItem::price}, Field{"shape", &StockItem::shape},
                   Field{"holes", &StockItem::holes}};
};
template <>
struct FieldsOf<Laying> {
    static constexpr auto list =
        std::tuple{Field{"cutting", &Laying::cutting},   Field{"stages", &Laying::stages},     Field{"grain", &Laying::grain},
                   Field{"fingers", &Laying::fingers},   Field{"together", &Laying::together}, Field{"registers", &Laying::registers},
                   Field{"excluded", &Laying::excluded}, Field{"waste", &Laying::waste},       Field{"stock", &Laying::stock}};
};
template <>
struct FieldsOf<Layer> {
    static constexpr auto list =
        std::tuple{Field{"name", &Layer::name},     Field{"medium", &Layer::medium}, Field{"printed", &Layer::printed},
                   Field{"colour", &Layer::colour}, Field{"tint", &Layer::tint},     Field{"grow", &Layer::grow}};
};
template <>
struct FieldsOf<Jig> {
    static constexpr auto list = std::tuple{Field{"id", &Jig::id},
                                            Field{"name", &Jig::name},
                                            Field{"rows", &Jig::rows},
                                            Field{"columns", &Jig::columns},
                                            Field{"pitch_x", &Jig::pitch_x},
                                            Field{"pitch_y", &Jig::pitch_y},
                                            Field{"slot_width", &Jig::slot_width},
                                            Field{"slot_height", &Jig::slot_height},
                                            Field{"slot_corner", &Jig::slot_corner},
                                            Field{"backer_width", &Jig::backer_width},
                                            Field{"backer_height", &Jig::backer_height},
                                            Field{"margin", &Jig::margin},
                                            Field{"assigned", &Jig::assigned}};
};
template <>
struct FieldsOf<Medium> {
    static constexpr auto list = std::tuple{Field{"id", &Medium::id},
                                            Field{"name", &Medium::name},
                                            Field{"method", &Medium::method},
                                            Field{"shape", &Medium::shape},
                                            Field{"width", &Medium::width},
                                            Field{"length", &Medium::length},
                                            Field{"margin", &Medium::margin},
                                            Field{"gap", &Medium::gap},
                                            Field{"mirror", &Medium::mirror},
                                            Field{"quarter_turns", &Medium::quarter_turns},
                                            Field{"free_turns", &Medium::free_turns},
                                            Field{"price", &Medium::price},
                                            Field{"min_stroke", &Medium::min_stroke},
                                            Field{"min_gap", &Medium::min_gap},
                                            Field{"cut_width", &Medium::cut_width},
                                            Field{"cut_length", &Medium::cut_length},
                                            Field{"taped_at", &Medium::taped_at},
                                            Field{"taped_lap", &Medium::taped_lap},
                                            Field{"tint", &Medium::tint},
                                            Field{"cut_offset", &Medium::cut_offset},
                                            Field{"laying", &Medium::laying},
                                            Field{"batch", &Medium::batch}};
};
template <>
struct FieldsOf<Platen> {
    static constexpr auto list = std::tuple{Field{"name", &Platen::name}, Field{"width", &Platen::width}, Field{"height", &Platen::height}};
};
template <>
struct FieldsOf<Pad> {
    static constexpr auto list = std::tuple{Field{"name", &Pad::name}, Field{"width", &Pad::width}, Field{"height", &Pad::height},
                                            Field{"thickness", &Pad::thickness}};
};
template <>
struct FieldsOf<Press> {
    static constexpr auto list = std::tuple{Field{"id", &Press::id},
                                            Field{"name", &Press::name},
                                            Field{"kind", &Press::kind},
                                            Field{"platens", &Press::platens},
                                            Field{"pads", &Press::pads},
                                            Field{"margin", &Press::margin},
                                            Field{"heat_rate", &Press::heat_rate},
                                            Field{"cool_rate", &Press::cool_rate},
                                            Field{"platen_seconds", &Press::platen_seconds},
                                            Field{"pressure_seconds", &Press::pressure_seconds},
                                            Field{"pieces", &Press::pieces}};
};
template <>
struct FieldsOf<RecipeStep> {
    static constexpr auto list = std::tuple{Field{"kind", &RecipeStep::kind},
                                            Field{"celsius", &RecipeStep::celsius},
                                            Field{"seconds", &RecipeStep::seconds},
                                            Field{"least_seconds", &RecipeStep::least_seconds},
                                            Field{"pressure", &RecipeStep::pressure},
                                            Field{"gauge_bar", &RecipeStep::gauge_bar},
                                            Field{"peel", &RecipeStep::peel},
                                            Field{"cover", &RecipeStep::cover},
                                            Field{"base", &RecipeStep::base},
                                            Field{"pad", &RecipeStep::pad},
                                            Field{"protect_other", &RecipeStep::protect_other},
                                            Field{"how", &RecipeStep::how}};
};
template <>
struct FieldsOf<FabricRule> {
    static constexpr auto list = std::tuple{Field{"fabric", &FabricRule::fabric},     Field{"darker_than", &FabricRule::darker_than},
                                            Field{"celsius", &FabricRule::celsius},   Field{"longer", &FabricRule::longer},
                                            Field{"pressure", &FabricRule::pressure}, Field{"most_celsius", &FabricRule::most_celsius},
                                            Field{"because", &FabricRule::because}};
};
template <>
struct FieldsOf<Trial> {
    static constexpr auto list = std::tuple{Field{"method", &Trial::method}, Field{"style", &Trial::style},   Field{"press", &Trial::press},
                                            Field{"steps", &Trial::steps},   Field{"result", &Trial::result}, Field{"date", &Trial::date},
                                            Field{"note", &Trial::note}};
};
template <>
struct FieldsOf<Method> {
    static constexpr auto list = std::tuple{Field{"id", &Method::id},
                                            Field{"name", &Method::name},
                                            Field{"read_through", &Method::read_through},
                                            Field{"fabrics", &Method::fabrics},
                                            Field{"never", &Method::never},
                                            Field{"lightest", &Method::lightest},
                                            Field{"flat_colours", &Method::flat_colours},
                                            Field{"stretches", &Method::stretches},
                                            Field{"handling", &Method::handling},
                                            Field{"min_stroke", &Method::min_stroke},
                                            Field{"min_gap", &Method::min_gap},
                                            Field{"min_island", &Method::min_island},
                                            Field{"powder", &Method::powder},
                                            Field{"keeps_days", &Method::keeps_days},
                                            Field{"ink_cost", &Method::ink_cost},
                                            Field{"minutes", &Method::minutes},
                                            Field{"shrink", &Method::shrink},
                                            Field{"layers", &Method::layers},
                                            Field{"recipe", &Method::recipe},
                                            Field{"oven_recipe", &Method::oven_recipe},
                                            Field{"fabric_rules", &Method::fabric_rules},
                                            Field{"bears_seconds", &Method::bears_seconds},
                                            Field{"bears_heats", &Method::bears_heats},
                                            Field{"care", &Method::care}};
};
template <>
struct FieldsOf<SeamPoint> {
    static constexpr auto list =
        std::tuple{Field{"upright", &SeamPoint::upright}, Field{"seam", &SeamPoint::seam}, Field{"at", &SeamPoint::at}};
};
template <>
struct FieldsOf<Making> {
    static constexpr auto list = std::tuple{
        Field{"layers", &Making::layers},         Field{"corner", &Making::corner},       Field{"fill_holes", &Making::fill_holes},
        Field{"bridges", &Making::bridges},       Field{"bridge", &Making::bridge},       Field{"overlap", &Making::overlap},
        Field{"white", &Making::white},           Field{"shrink", &Making::shrink},       Field{"split", &Making::split},
        Field{"split_join", &Making::split_join}, Field{"split_lap", &Making::split_lap}, Field{"seam_points", &Making::seam_points},
        Field{"wrap_join", &Making::wrap_join},   Field{"wrap_lap", &Making::wrap_lap},   Field{"seam_at", &Making::seam_at},
        Field{"two_sided", &Making::two_sided},   Field{"fold", &Making::fold},           Field{"cover", &Making::cover},
        Field{"bleed", &Making::bleed},           Field{"misplaced", &Making::misplaced}, Field{"jig", &Making::jig},
        Field{"snip_gap", &Making::snip_gap}};
};
template <>
struct FieldsOf<OrderLine> {
    static constexpr auto list =
        std::tuple{Field{"style", &OrderLine::style},       Field{"colour", &OrderLine::colour}, Field{"size", &OrderLine::size},
                   Field{"quantity", &OrderLine::quantity}, Field{"note", &OrderLine::note},     Field{"lot", &OrderLine::lot},
                   Field{"first", &OrderLine::first},       Field{"ref", &OrderLine::ref},       Field{"job", &OrderLine::job},
                   Field{"name", &OrderLine::name},         Field{"number", &OrderLine::number}};
};
template <>
struct FieldsOf<Lot> {
    static constexpr auto list = std::tuple{Field{"id", &Lot::id}, Field{"name", &Lot::name}};
};
template <>
struct FieldsOf<RunKey> {
    static constexpr auto list = std::tuple{Field{"style", &RunKey::style}, Field{"colour", &RunKey::colour}, Field{"lot", &RunKey::lot},
                                            Field{"job", &RunKey::job}};
};
template <>
struct FieldsOf<SharedWidth> {
    static constexpr auto list = std::tuple{Field{"first", &SharedWidth::first}, Field{"width", &SharedWidth::width}};
};
template <>
struct FieldsOf<SizingRule> {
    static constexpr auto list = std::tuple{Field{"school", &SizingRule::school},         Field{"base_size", &SizingRule::base_size},
                                            Field{"base_width", &SizingRule::base_width}, Field{"measure", &SizingRule::measure},
                                            Field{"exponent", &SizingRule::exponent},     Field{"step", &SizingRule::step},
                                            Field{"within", &SizingRule::within},         Field{"price", &SizingRule::price},
                                            Field{"band_count", &SizingRule::band_count}, Field{"band_starts", &SizingRule::band_starts},
                                            Field{"shared", &SizingRule::shared},         Field{"past_platen", &SizingRule::past_platen}};
};
template <>
struct FieldsOf<PlacingRule> {
    static constexpr auto list =
        std::tuple{Field{"school", &PlacingRule::school},     Field{"offset", &PlacingRule::offset}, Field{"share", &PlacingRule::share},
                   Field{"landmark", &PlacingRule::landmark}, Field{"growth", &PlacingRule::growth}, Field{"across", &PlacingRule::across},
                   Field{"centre", &PlacingRule::centre}};
};
template <>
struct FieldsOf<SizePin> {
    static constexpr auto list = std::tuple{Field{"size", &SizePin::size}, Field{"width", &SizePin::width}, Field{"down", &SizePin::down},
                                            Field{"across", &SizePin::across}};
};
template <>
struct FieldsOf<Meeting> {
    static constexpr auto list = std::tuple{Field{"mark", &Meeting::mark}, Field{"landmark", &Meeting::landmark}};
};
template <>
struct FieldsOf<GarmentClass> {
    static constexpr auto list = std::tuple{Field{"group", &GarmentClass::group}, Field{"family", &GarmentClass::family}};
};
template <>
struct FieldsOf<ClassBase> {
    static constexpr auto list =
        std::tuple{Field{"of", &ClassBase::of}, Field{"width", &ClassBase::width}, Field{"offset", &ClassBase::offset},
                   Field{"share", &ClassBase::share}, Field{"across", &ClassBase::across}};
};
template <>
struct FieldsOf<BlankBase> {
    static constexpr auto list = std::tuple{Field{"style", &BlankBase::style}, Field{"size", &BlankBase::size}};
};
template <>
struct FieldsOf<DesignRule> {
    static constexpr auto list = std::tuple{Field{"id", &DesignRule::id},
                                            Field{"name", &DesignRule::name},
                                            Field{"art", &DesignRule::art},
                                            Field{"location", &DesignRule::location},
                                            Field{"sizing", &DesignRule::sizing},
                                            Field{"placing", &DesignRule::placing},
                                            Field{"bases", &DesignRule::bases},
                                            Field{"base_sizes", &DesignRule::base_sizes},
                                            Field{"meetings", &DesignRule::meetings},
                                            Field{"apart", &DesignRule::apart}};
};
template <>
struct FieldsOf<Decoration> {
    static constexpr auto list =
        std::tuple{Field{"id", &Decoration::id},          Field{"name", &Decoration::name},         Field{"art", &Decoration::art},
                   Field{"run", &Decoration::run},        Field{"location", &Decoration::location}, Field{"medium", &Decoration::medium},
                   Field{"press", &Decoration::press},    Field{"sizing", &Decoration::sizing},     Field{"placing", &Decoration::placing},
                   Field{"pins", &Decoration::pins},      Field{"meetings", &Decoration::meetings}, Field{"apart", &Decoration::apart},
                   Field{"spares", &Decoration::spares},  Field{"making", &Decoration::making},     Field{"rule", &Decoration::rule},
                   Field{"departs", &Decoration::departs}};
};
template <>
struct FieldsOf<NamedMark> {
    static constexpr auto list = std::tuple{Field{"name", &NamedMark::name}, Field{"at", &NamedMark::at}};
};
template <>
struct FieldsOf<ArtClip> {
    static constexpr auto list = std::tuple{Field{"word", &ArtClip::word}, Field{"bold", &ArtClip::bold}, Field{"style", &ArtClip::style},
                                            Field{"size", &ArtClip::size}, Field{"face", &ArtClip::face}, Field{"bleed", &ArtClip::bleed}};
};
template <>
struct FieldsOf<LetterRim> {
    static constexpr auto list = std::tuple{Field{"colour", &LetterRim::colour}, Field{"width", &LetterRim::width}};
};
template <>
struct FieldsOf<Lettering> {
    static constexpr auto list = std::tuple{Field{"words", &Lettering::words},
                                            Field{"typeface", &Lettering::typeface},
                                            Field{"narrow", &Lettering::narrow},
                                            Field{"narrow_name", &Lettering::narrow_name},
                                            Field{"height", &Lettering::height},
                                            Field{"spacing", &Lettering::spacing},
                                            Field{"least_gap", &Lettering::least_gap},
                                            Field{"arch", &Lettering::arch},
                                            Field{"capitals", &Lettering::capitals},
                                            Field{"squeeze", &Lettering::squeeze},
                                            Field{"digits", &Lettering::digits},
                                            Field{"colour", &Lettering::colour},
                                            Field{"rims", &Lettering::rims}};
};
template <>
struct FieldsOf<PictureAt> {
    static constexpr auto list =
        std::tuple{Field{"width", &PictureAt::width}, Field{"middle", &PictureAt::middle}, Field{"degrees", &PictureAt::degrees}};
};
template <>
struct FieldsOf<PlacePart> {
    static constexpr auto list = std::tuple{Field{"picture", &PlacePart::picture}, Field{"at", &PlacePart::at}};
};
template <>
struct FieldsOf<SharingLine> {
    static constexpr auto list = std::tuple{Field{"through", &SharingLine::through}, Field{"degrees", &SharingLine::degrees}};
};
template <>
struct FieldsOf<WordPlace> {
    static constexpr auto list =
        std::tuple{Field{"shape", &WordPlace::shape},   Field{"outline", &WordPlace::outline}, Field{"first", &WordPlace::first},
                   Field{"second", &WordPlace::second}, Field{"shared", &WordPlace::shared},   Field{"line", &WordPlace::line}};
};
template <>
struct FieldsOf<WordPicture> {
    static constexpr auto list =
        std::tuple{Field{"word", &WordPicture::word}, Field{"typeface", &WordPicture::typeface}, Field{"apart", &WordPicture::apart},
                   Field{"rim", &WordPicture::rim}, Field{"places", &WordPicture::places}};
};
template <>
struct FieldsOf<Mending> {
    static constexpr auto list = std::tuple{Field{"kind", &Mending::kind},
                                            Field{"degrees", &Mending::degrees},
                                            Field{"keep", &Mending::keep},
                                            Field{"tolerance", &Mending::tolerance},
                                            Field{"counters", &Mending::counters},
                                            Field{"least", &Mending::least},
                                            Field{"at", &Mending::at},
                                            Field{"threshold", &Mending::threshold},
                                            Field{"dpi", &Mending::dpi},
                                            Field{"apart", &Mending::apart}};
};
template <>
struct FieldsOf<LaidOver> {
    static constexpr auto list = std::tuple{Field{"picture", &LaidOver::picture},
                                            Field{"width", &LaidOver::width},
                                            Field{"level", &LaidOver::level},
                                            Field{"upright", &LaidOver::upright},
                                            Field{"across", &LaidOver::across},
                                            Field{"down", &LaidOver::down},
                                            Field{"degrees", &LaidOver::degrees},
                                            Field{"see_through", &LaidOver::see_through},
                                            Field{"tint", &LaidOver::tint},
                                            Field{"edge", &LaidOver::edge},
                                            Field{"edge_colour", &LaidOver::edge_colour}};
};
template <>
struct FieldsOf<PutTogether> {
    static constexpr auto list =
        std::tuple{Field{"style", &PutTogether::style}, Field{"size", &PutTogether::size},     Field{"face", &PutTogether::face},
                   Field{"bleed", &PutTogether::bleed}, Field{"ground", &PutTogether::ground}, Field{"plain", &PutTogether::plain},
                   Field{"over", &PutTogether::over},   Field{"clear", &PutTogether::clear}};
};
template <>
struct FieldsOf<Art> {
    static constexpr auto list = std::tuple{Field{"id", &Art::id},
                                            Field{"name", &Art::name},
                                            Field{"kind", &Art::kind},
                                            Field{"hash", &Art::hash},
                                            Field{"marked_centre", &Art::marked_centre},
                                            Field{"marks", &Art::marks},
                                            Field{"clip", &Art::clip},
                                            Field{"subject", &Art::subject},
                                            Field{"lettering", &Art::lettering},
                                            Field{"mendings", &Art::mendings},
                                            Field{"word_picture", &Art::word_picture},
                                            Field{"together", &Art::together}};
};
template <>
struct FieldsOf<PlacedCopy> {
    static constexpr auto list =
        std::tuple{Field{"transfer", &PlacedCopy::transfer}, Field{"copy", &PlacedCopy::copy}, Field{"sheet", &PlacedCopy::sheet},
                   Field{"turn", &PlacedCopy::turn},         Field{"x", &PlacedCopy::x},       Field{"y", &PlacedCopy::y},
                   Field{"locked", &PlacedCopy::locked}};
};
template <>
struct FieldsOf<FillWish> {
    static constexpr auto list =
        std::tuple{Field{"transfer", &FillWish::transfer}, Field{"value", &FillWish::value}, Field{"copies", &FillWish::copies}};
};
template <>
struct FieldsOf<PrintedCopies> {
    static constexpr auto list = std::tuple{Field{"transfer", &PrintedCopies::transfer}, Field{"copies", &PrintedCopies::copies},
                                            Field{"job", &PrintedCopies::job}, Field{"bag", &PrintedCopies::bag}};
};
template <>
struct FieldsOf<LaidSheets> {
    static constexpr auto list = std::tuple{Field{"copies", &LaidSheets::copies}, Field{"stock", &LaidSheets::stock}};
};
template <>
struct FieldsOf<MediumLayout> {
    static constexpr auto list =
        std::tuple{Field{"medium", &MediumLayout::medium}, Field{"copies", &MediumLayout::copies},   Field{"stock", &MediumLayout::stock},
                   Field{"fill", &MediumLayout::fill},     Field{"printed", &MediumLayout::printed}, Field{"kept", &MediumLayout::kept}};
};
template <>
struct FieldsOf<PressBreak> {
    static constexpr auto list = std::tuple{Field{"from", &PressBreak::from}, Field{"to", &PressBreak::to}};
};
template <>
struct FieldsOf<LoadPin> {
    static constexpr auto list =
        std::tuple{Field{"load", &LoadPin::load}, Field{"press", &LoadPin::press}, Field{"start", &LoadPin::start}};
};
template <>
struct FieldsOf<PlanTurn> {
    static constexpr auto list =
        std::tuple{Field{"stage", &PlanTurn::stage}, Field{"press", &PlanTurn::press}, Field{"ahead", &PlanTurn::ahead}};
};
template <>
struct FieldsOf<PlanKeep> {
    static constexpr auto list = std::tuple{Field{"press", &PlanKeep::press}, Field{"seconds", &PlanKeep::seconds}};
};
template <>
struct FieldsOf<AcceptedPlan> {
    static constexpr auto list =
        std::tuple{Field{"turns", &AcceptedPlan::turns}, Field{"woven", &AcceptedPlan::woven}, Field{"fill", &AcceptedPlan::fill},
                   Field{"keep", &AcceptedPlan::keep}, Field{"revision", &AcceptedPlan::revision}};
};
template <>
struct FieldsOf<PressRun> {
    static constexpr auto list = std::tuple{Field{"start", &PressRun::start},
                                            Field{"due", &PressRun::due},
                                            Field{"hands", &PressRun::hands},
                                            Field{"share_presses", &PressRun::share_presses},
                                            Field{"trials", &PressRun::trials},
                                            Field{"fahrenheit", &PressRun::fahrenheit},
                                            Field{"makes_film", &PressRun::makes_film},
                                            Field{"breaks", &PressRun::breaks},
                                            Field{"pins", &PressRun::pins},
                                            Field{"order", &PressRun::order},
                                            Field{"accepted", &PressRun::accepted}};
};
template <>
struct FieldsOf<PrintedGuide> {
    static constexpr auto list = std::tuple{Field{"decoration", &PrintedGuide::decoration}, Field{"size", &PrintedGuide::size},
                                            Field{"revision", &PrintedGuide::revision}};
};
template <>
struct FieldsOf<Approval> {
    static constexpr auto list = std::tuple{Field{"by", &Approval::by}, Field{"at", &Approval::at}, Field{"designs", &Approval::designs},
                                            Field{"lines", &Approval::lines}};
};
template <>
struct FieldsOf<QuantityStep> {
    static constexpr auto list = std::tuple{Field{"from", &QuantityStep::from}, Field{"off", &QuantityStep::off}};
};
template <>
struct FieldsOf<LocationPrice> {
    static constexpr auto list = std::tuple{Field{"location", &LocationPrice::location}, Field{"price", &LocationPrice::price}};
};
template <>
struct FieldsOf<Pricing> {
    static constexpr auto list =
        std::tuple{Field{"by_steps", &Pricing::by_steps}, Field{"margin", &Pricing::margin},  Field{"prints", &Pricing::prints},
                   Field{"on_blank", &Pricing::on_blank}, Field{"steps", &Pricing::steps},    Field{"set_up", &Pricing::set_up},
                   Field{"tax", &Pricing::tax},           Field{"promise", &Pricing::promise}};
};
template <>
struct FieldsOf<GuideSetup> {
    static constexpr auto list = std::tuple{Field{"measured", &GuideSetup::measured},
                                            Field{"windows", &GuideSetup::windows},
                                            Field{"large_paper", &GuideSetup::large_paper},
                                            Field{"label_codes", &GuideSetup::label_codes},
                                            Field{"short_templates", &GuideSetup::short_templates},
                                            Field{"printed", &GuideSetup::printed}};
};
template <>
struct FieldsOf<KeptOut> {
    static constexpr auto list = std::tuple{Field{"row", &KeptOut::row}, Field{"text", &KeptOut::text}, Field{"reason", &KeptOut::reason}};
};
template <>
struct FieldsOf<KeptPhoto> {
    static constexpr auto list =
        std::tuple{Field{"style", &KeptPhoto::style}, Field{"size", &KeptPhoto::size}, Field{"record", &KeptPhoto::record},
                   Field{"date", &KeptPhoto::date}, Field{"hash", &KeptPhoto::hash}};
};
template <>
struct FieldsOf<Reprint> {
    static constexpr auto list =
        std::tuple{Field{"decoration", &Reprint::decoration}, Field{"size", &Reprint::size}, Field{"copies", &Reprint::copies},
                   Field{"cause", &Reprint::cause}, Field{"word", &Reprint::word}};
};
template <>
struct FieldsOf<Correction> {
    static constexpr auto list =
        std::tuple{Field{"id", &Correction::id},         Field{"kind", &Correction::kind},       Field{"press", &Correction::press},
                   Field{"platen", &Correction::platen}, Field{"hands", &Correction::hands},     Field{"style", &Correction::style},
                   Field{"size", &Correction::size},     Field{"method", &Correction::method},   Field{"design", &Correction::design},
                   Field{"batch", &Correction::batch},   Field{"aside", &Correction::aside},     Field{"down", &Correction::down},
                   Field{"by", &Correction::by},         Field{"low", &Correction::low},         Field{"high", &Correction::high},
                   Field{"pieces", &Correction::pieces}, Field{"records", &Correction::records}, Field{"words", &Correction::words},
                   Field{"since", &Correction::since}};
};
template <>
struct FieldsOf<Brought> {
    static constexpr auto list = std::tuple{Field{"was", &Brought::was}, Field{"is", &Brought::is}};
};
template <>
struct FieldsOf<Job> {
    static constexpr auto list = std::tuple{Field{"id", &Job::id},
                                            Field{"name", &Job::name},
                                            Field{"customer", &Job::customer},
                                            Field{"due", &Job::due},
                                            Field{"due_at", &Job::due_at},
                                            Field{"note", &Job::note},
                                            Field{"own", &Job::own},
                                            Field{"styles", &Job::styles},
                                            Field{"media", &Job::media},
                                            Field{"presses", &Job::presses},
                                            Field{"methods", &Job::methods},
                                            Field{"jigs", &Job::jigs},
                                            Field{"art", &Job::art},
                                            Field{"rules", &Job::rules},
                                            Field{"lots", &Job::lots},
                                            Field{"decorations", &Job::decorations}};
};
template <>
struct FieldsOf<Order> {
    static constexpr auto list = std::tuple{Field{"name", &Order::name},
                                            Field{"job", &Order::job},
                                            Field{"customer", &Order::customer},
                                            Field{"note", &Order::note},
                                            Field{"due", &Order::due},
                                            Field{"unit", &Order::unit},
                                            Field{"paper", &Order::paper},
                                            Field{"currency", &Order::currency},
                                            Field{"hourly", &Order::hourly},
                                            Field{"jobs", &Order::jobs},
                                            Field{"lines", &Order::lines},
                                            Field{"lots", &Order::lots},
                                            Field{"art", &Order::art},
                                            Field{"rules", &Order::rules},
                                            Field{"decorations", &Order::decorations},
                                            Field{"styles", &Order::styles},
                                            Field{"media", &Order::media},
                                            Field{"presses", &Order::presses},
                                            Field{"methods", &Order::methods},
                                            Field{"jigs", &Order::jigs},
                                            Field{"layouts", &Order::layouts},
                                            Field{"trials", &Order::trials},
                                            Field{"corrections", &Order::corrections},
                                            Field{"press_run", &Order::press_run},
                                            Field{"reprints", &Order::reprints},
                                            Field{"kept_out", &Order::kept_out},
                                            Field{"photographs", &Order::photographs},
                                            Field{"guide_setup", &Order::guide_setup},
                                            Field{"pricing", &Order::pricing},
                                            Field{"approval", &Order::approval}};
};

}  // namespace orthema
