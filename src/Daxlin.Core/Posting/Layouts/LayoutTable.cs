using System.Collections.Immutable;
using Daxlin.Core.Posting.Expressions;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>One kind of records in a layout.</summary>
/// <param name="Name">Of the sheet, of the list in JSON, or in the files' names.</param>
/// <param name="Where">Which of the records are written; null for all.</param>
public sealed record LayoutTable(string Name, LayoutRecords Records, Expression? Where, ImmutableArray<LayoutColumn> Columns);
