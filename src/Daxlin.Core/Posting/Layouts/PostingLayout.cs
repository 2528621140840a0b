using System.Collections.Immutable;
using Daxlin.Core.Posting.Expressions;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>Which records a posting run writes, in the form in which a ledger takes them.</summary>
/// <param name="Name">Small letters, digits and dashes.</param>
/// <param name="Invoices">Which approved invoices a run by this layout takes; null for all. The others stay approved.</param>
public sealed record PostingLayout(string Name, Expression? Invoices, CreditSigns CreditNotes, ImmutableArray<LayoutTable> Tables, FileRule File)
{
    /// <summary>Says that it writes journals, for which the coding rules name accounts.</summary>
    public bool HasJournal => Tables.Any(table => table.Records == LayoutRecords.Journal);

    /// <summary>The translation lists that it looks words up in, each once.</summary>
    public IEnumerable<string> Lists =>
        Tables.SelectMany(table => table.Columns.Select(column => column.Value).Append(table.Where)).Append(Invoices).OfType<Expression>().SelectMany(expression => expression.Lists).Distinct();
}
