namespace WarmConduit.Core.Materials;

/// <summary>What to mind with a part that can hurt: shown where the part is, in every rig. Local codes and licensed work come first.</summary>
internal static class Cautions
{
    private const string Coolant =
        "Hot coolant is under pressure and scalds: let it cool before you open anything. Engine coolant is poisonous; nothing but a sound wall may stand " +
            "between it and drinking water. Have a licensed fitter connect it.";

    private const string Heavy = "A litre weighs a kilogram, and a loose tank is a missile in a crash: strap it to the vehicle's frame, not to furniture.";

    /// <summary>Of a part from stock; null: nothing beyond common care.</summary>
    public static string? Of(string stockId, PartGroup group, Passage passage) => stockId switch
    {
        "gas-heater" => "Gas: a licensed gas fitter installs it and tests it for leaks. Keep its flue and its air inlet clear, also of snow, and fit a " +
            "carbon monoxide alarm. Water can leave it scalding hot.",
        "storage-heater" => "Mains beside water: a licensed electrician connects it, behind a residual current device. Never switch it on dry. It stores " +
        "water at 60 °C (140 °F) or more against Legionella, which scalds.",
        "coolant-heater" or "pumped-coolant-heater" => "It burns fuel: a licensed fitter installs it, its exhaust led out from under the " +
            "vehicle and clear of openings. Fit a carbon monoxide alarm. " + Coolant,
        "engine" => "Engine coolant reaches 110 °C (230 °F) and is poisonous. Shut the way between it and the loop unless you want it, and have a mechanic " +
            "join the two. " + Coolant,
        "circulator" or "radiator" or "panel-radiator" or "towel-ladder" or "header-tank" or "coolant-coil" or "calorifier" or "coil-calorifier"
            or "plate-exchanger" or "exchanger-side" => Coolant,
        "loop-element" => "Mains beside fluid: a licensed electrician connects it, behind a residual current device, with a cut-out that trips without flow. " +
            Coolant,
        "relief-valve" => "Never plug, shut or bypass it. What it lets out scalds: lead it where it can hurt nobody, and where you see it drip.",
        "mixing-valve" => "Set it with a thermometer at the tap, and check it each year: limescale stops it, and water above 50 °C (122 °F) " +
            "scalds in seconds.",
        "air-port" => "Compressed air: regulate it to the weakest part's rating, open an outlet first, wear eye protection, and never leave it joined alone.",
        "town-coupling" or "town-inlet" => "Local rules say which device keeps town water safe from what is joined to it.",
        _ when group == PartGroup.Store && passage == Passage.Vessel => Heavy,
        _ => null,
    };
}
