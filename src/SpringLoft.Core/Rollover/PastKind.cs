namespace SpringLoft.Core.Rollover;

/// <summary>What a class of this year can draw from the past.</summary>
public enum PastKind { File, Link, Page, Assignment, Folder }
