using System.Data;
using System.Globalization;
using Dapper;
using NodaTime;
using NodaTime.Text;
using SpringLoft.Core;
using SpringLoft.Core.Plans;

namespace SpringLoft.Store.Rows;

/// <summary>Teaches Dapper our ids, dates and instants. Dates and instants are kept as ISO 8601 text, so that the file can be read by anybody.</summary>
internal static class TypeHandlers
{
    private static readonly Lock Once = new();
    private static bool registered;

    internal static void Register()
    {
        lock (Once)
        {
            if (registered) return;
            DefaultTypeMap.MatchNamesWithUnderscores = true;
            Id<YearId>(); Id<TermId>(); Id<PersonId>(); Id<CourseId>(); Id<ClassId>(); Id<PlanId>();
            Id<FolderId>(); Id<ItemId>(); Id<AssignmentId>(); Id<WorkId>(); Id<RunId>(); Id<SessionId>(); Id<GroupId>(); Id<ResourceId>(); Id<ContactId>();
            SqlMapper.AddTypeHandler(new DateHandler());
            SqlMapper.AddTypeHandler(new TimeHandler());
            SqlMapper.AddTypeHandler(new InstantHandler());
            SqlMapper.AddTypeHandler(new FolderKeyHandler());
            registered = true;
        }
    }

    private static void Id<T>() where T : struct, IId<T> => SqlMapper.AddTypeHandler(new IdHandler<T>());

    private sealed class IdHandler<T> : SqlMapper.TypeHandler<T> where T : struct, IId<T>
    {
        public override T Parse(object value) => T.From((long)value);

        public override void SetValue(IDbDataParameter parameter, T value) => parameter.Value = value.Value;
    }

    private sealed class DateHandler : SqlMapper.TypeHandler<LocalDate>
    {
        public override LocalDate Parse(object value) => LocalDatePattern.Iso.Parse((string)value).Value;

        public override void SetValue(IDbDataParameter parameter, LocalDate value) => parameter.Value = LocalDatePattern.Iso.Format(value);
    }

    private sealed class TimeHandler : SqlMapper.TypeHandler<LocalTime>
    {
        private static readonly NodaTime.Text.LocalTimePattern pattern = NodaTime.Text.LocalTimePattern.CreateWithInvariantCulture("HH:mm");

        public override LocalTime Parse(object value) => pattern.Parse((string)value).Value;

        public override void SetValue(IDbDataParameter parameter, LocalTime value) => parameter.Value = pattern.Format(value);
    }

    private sealed class FolderKeyHandler : SqlMapper.TypeHandler<FolderKey>
    {
        public override FolderKey Parse(object value) => FolderKey.Parse((string)value);

        public override void SetValue(IDbDataParameter parameter, FolderKey? value) => parameter.Value = (object?)value?.Text ?? DBNull.Value;
    }

    private sealed class InstantHandler : SqlMapper.TypeHandler<Instant>
    {
        public override Instant Parse(object value) => InstantPattern.ExtendedIso.Parse((string)value).Value;

        public override void SetValue(IDbDataParameter parameter, Instant value) => parameter.Value = Bulk.Text(value);
    }
}
