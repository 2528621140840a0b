namespace Daxlin.Core.Posting.Layouts;

/// <summary>What a posting file is.</summary>
public enum FileFormat
{
    /// <summary>Values parted by a delimiter: RFC 4180, or by tabs.</summary>
    Csv,

    /// <summary>Each column at its place, filled up with blanks or zeros.</summary>
    FixedWidth,

    /// <summary>A spreadsheet (Office Open XML): a sheet for each table, and one for the control totals.</summary>
    Xlsx,

    /// <summary>One JSON document.</summary>
    Json,

    /// <summary>A JSON document a line.</summary>
    Ndjson,

    /// <summary>An electronic invoice of EN 16931 for each invoice, in UBL 2.1.</summary>
    Ubl,
}
