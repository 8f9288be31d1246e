namespace SpringLoft.Core;

/// <summary>A database key that knows what it is the key of, so that a class can't be passed for a folder.</summary>
/// <typeparam name="TSelf">The id type itself.</typeparam>
public interface IId<TSelf> where TSelf : struct, IId<TSelf>
{
    /// <summary>The bare key, 1 and up.</summary>
    long Value { get; }

    /// <summary>Wraps a bare key.</summary>
    static abstract TSelf From(long value);
}

/// <summary>A school year.</summary>
public readonly record struct YearId(long Value) : IId<YearId> { public static YearId From(long value) => new(value); }

/// <summary>A term of a school year.</summary>
public readonly record struct TermId(long Value) : IId<TermId> { public static TermId From(long value) => new(value); }

/// <summary>A person of the directory.</summary>
public readonly record struct PersonId(long Value) : IId<PersonId> { public static PersonId From(long value) => new(value); }

/// <summary>A course, taught in classes.</summary>
public readonly record struct CourseId(long Value) : IId<CourseId> { public static CourseId From(long value) => new(value); }

/// <summary>A class and its workspace.</summary>
public readonly record struct ClassId(long Value) : IId<ClassId> { public static ClassId From(long value) => new(value); }

/// <summary>A folder plan.</summary>
public readonly record struct PlanId(long Value) : IId<PlanId> { public static PlanId From(long value) => new(value); }

/// <summary>A folder of a workspace.</summary>
public readonly record struct FolderId(long Value) : IId<FolderId> { public static FolderId From(long value) => new(value); }

/// <summary>A file or a link, filed in one folder or in several.</summary>
public readonly record struct ItemId(long Value) : IId<ItemId> { public static ItemId From(long value) => new(value); }

/// <summary>An assignment of a class.</summary>
public readonly record struct AssignmentId(long Value) : IId<AssignmentId> { public static AssignmentId From(long value) => new(value); }

/// <summary>One student's piece of work for one assignment.</summary>
public readonly record struct WorkId(long Value) : IId<WorkId> { public static WorkId From(long value) => new(value); }

/// <summary>A run: long work in steps, each safe to repeat.</summary>
public readonly record struct RunId(long Value) : IId<RunId> { public static RunId From(long value) => new(value); }

/// <summary>A sign-in of a person on one browser.</summary>
public readonly record struct SessionId(long Value) : IId<SessionId> { public static SessionId From(long value) => new(value); }

/// <summary>A group: some students of one class.</summary>
public readonly record struct GroupId(long Value) : IId<GroupId> { public static GroupId From(long value) => new(value); }

/// <summary>A site or shared material of the school's list.</summary>
public readonly record struct ResourceId(long Value) : IId<ResourceId> { public static ResourceId From(long value) => new(value); }

/// <summary>Somebody at home to whom the school may write.</summary>
public readonly record struct ContactId(long Value) : IId<ContactId> { public static ContactId From(long value) => new(value); }
