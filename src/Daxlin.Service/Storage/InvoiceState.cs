namespace Daxlin.Service.Storage;

/// <summary>How far an invoice has come; see the table of words in the design.</summary>
public enum InvoiceState
{
    /// <summary>No template recognises it, or more than one does.</summary>
    Unplaced,

    /// <summary>Captured, with findings open.</summary>
    Held,

    /// <summary>Nothing open.</summary>
    Clear,

    /// <summary>A person answers for it.</summary>
    Approved,

    /// <summary>In a posting run.</summary>
    Posted,

    /// <summary>Set aside by a person.</summary>
    Returned,
}
