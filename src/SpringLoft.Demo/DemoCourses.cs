namespace SpringLoft.Demo;

/// <summary>A course of the demo school, with what is set in it.</summary>
internal sealed record DemoCourse(string Name, string Mark, string Department, int Plan, string[] Assignments, string[] Papers);

/// <summary>The eight courses of Skerry Point School.</summary>
internal static class DemoCourses
{
    internal static readonly DemoCourse[] All =
    [
        new("Boatbuilding", "hull", "Workshop", 1, ["Lines of a skiff", "Plank drawing", "Scale model", "Tool diary", "Launch report", "Rope splices"], ["Safety in the yard", "Lofting sheet", "Wood list"]),
        new("Clay and Glass", "pot", "Workshop", 1, ["Pinch pot", "Glaze tests", "Leaded panel", "Kiln diary", "Show piece"], ["Kiln rules", "Glaze recipes", "Glass cutting"]),
        new("Tides and Weather", "wave", "Sea and Sky", 2, ["Tide table", "Barometer log", "Cloud atlas", "Storm report", "Sea temperature graph", "Harbour forecast", "Year summary"], ["Tide gauge readings", "Cloud chart", "Forecast symbols"]),
        new("Signals", "flag", "Sea and Sky", 0, ["Flag alphabet", "Lamp message", "Radio log", "Own code"], ["Flag sheet", "Lamp timing", "Radio phrases"]),
        new("Market Garden", "leaf", "Land", 2, ["Bed plan", "Seed diary", "Soil test", "Harvest count", "Stall accounts"], ["Crop calendar", "Soil sheet", "Stall prices"]),
        new("Island Stories", "book", "Words and Sound", 0, ["Interview", "Family tale", "Lighthouse essay", "Map of names", "Reading aloud", "Own legend"], ["How to interview", "Old map", "Story list"]),
        new("Wayfinding", "compass", "Sea and Sky", 3, ["Compass walk", "Star chart", "Dead reckoning", "Chart work"], ["Chart symbols", "Star names", "Walk sheet"]),
        new("Sound and Rhythm", "note", "Words and Sound", 0, ["Drum pattern", "Sea song", "Instrument", "Recording", "Concert notes"], ["Song sheet", "Drum notation", "Concert plan"]),
    ];
}
