using System.Collections.Immutable;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;

namespace Daxlin.Core.Posting.Ubl;

/// <summary>Says what a layout lacks to write electronic invoices: its tables and columns are settled there.</summary>
internal static class UblLayout
{
    private static readonly ImmutableArray<LayoutRecords> Tables = [LayoutRecords.Invoices, LayoutRecords.Lines, LayoutRecords.Taxes];

    public static void Check(JsonPlace layout, ImmutableArray<LayoutTable> tables, FaultList faults)
    {
        // A document by which the seller owes the amounts is told by their sign.
        if (layout.Find("creditNotes") is { } signs && signs.Text != "negative")
            faults.Add(signs, "A layout of electronic invoices tells credit notes by their minus: “creditNotes” is “negative”. They are written without it.");
        var place = layout.Find("tables") ?? layout;
        foreach (var records in Tables.Where(records => tables.Count(table => table.Records == records) != 1))
            faults.Add(place, $"An electronic invoice needs one table of {records.Word()}.");
        for (var at = 0; at < tables.Length && at < place.Items.Length; at++)
        {
            var known = UblColumns.Of(tables[at].Records);
            if (known.IsEmpty)
                faults.Add(place.Items[at], "An electronic invoice has no place for a journal.");
            else
                CheckColumns(place.Items[at], tables[at], known, faults);
            if (tables[at].Where is not null)
                faults.Add(place.Items[at], "An electronic invoice has all records; “where” leaves some out.");
        }
    }

    private static void CheckColumns(JsonPlace place, LayoutTable table, ImmutableArray<UblColumn> known, FaultList faults)
    {
        foreach (var column in table.Columns)
        {
            var wanted = known.FirstOrDefault(one => one.Heading == column.Heading);
            if (wanted is null)
            {
                var names = known.Select(one => one.Heading).ToList();
                faults.Add(place, $"An electronic invoice has no column “{column.Heading}” in its {table.Records.Word()}; {(Slips.Meant(column.Heading, names) is { } meant ? $"“{meant}” is meant, perhaps" : $"there are {string.Join(", ", names)}")}.");
            }
            else if (wanted.Type != column.Value.Type)
                faults.Add(place, $"The column “{column.Heading}” is {wanted.Type.Spoken()} in an electronic invoice; this is {column.Value.Type.Spoken()}.");
            else if (wanted.Proves != column.Proves)
                faults.Add(place, wanted.Proves == Proved.Nothing ? $"The column “{column.Heading}” of an electronic invoice proves nothing." : $"The column “{column.Heading}” must prove what it comes to: “proves”: \"{wanted.Proves.Word()}\".");
        }
        foreach (var missing in known.Where(one => one.IsNeeded && !table.Columns.Any(column => column.Heading == one.Heading)))
            faults.Add(place, $"An electronic invoice needs the column “{missing.Heading}” in its {table.Records.Word()}.");
    }
}
