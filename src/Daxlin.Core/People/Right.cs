namespace Daxlin.Core.People;

/// <summary>What an act asks of who does it.</summary>
public enum Right
{
    /// <summary>To look at what there is.</summary>
    See,

    /// <summary>To take in, correct, return and prepare: batches, invoices, templates, vendors, layouts, coding rules.</summary>
    Work,

    /// <summary>To approve invoices and to confirm bank details.</summary>
    Approve,

    /// <summary>To make posting runs, take them back, and have them delivered.</summary>
    Post,

    /// <summary>To look after people, keys, receivers, secrets and closed periods.</summary>
    Administer,
}
