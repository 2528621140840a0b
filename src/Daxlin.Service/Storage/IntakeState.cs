namespace Daxlin.Service.Storage;

/// <summary>How far a document of a batch has come.</summary>
public enum IntakeState
{
    /// <summary>Kept, not yet read.</summary>
    Waiting,

    /// <summary>Read and captured; its invoices are there.</summary>
    Done,

    /// <summary>Set aside, with a reason.</summary>
    Unreadable,
}
