namespace SpringLoft.Core.Rollover;

/// <summary>What becomes of the dates of assignments.</summary>
public enum CarriedDates { None, BySchoolWeek }

/// <summary>What a person lets come along into next year's class; all of it if nothing is said.</summary>
/// <param name="Folders">Without them, what stands in them stays too.</param>
/// <param name="MarkingScheme">The points of assignments.</param>
/// <param name="Groups">The groups by name, without their members.</param>
public sealed record CarryChoice(bool Folders = true, bool Files = true, bool Links = true, bool Pages = true, bool Assignments = true, bool MarkingScheme = true, bool Groups = true, bool Welcome = true, CarriedDates Dates = CarriedDates.None);
