namespace Daxlin.Samples;

/// <summary>What is printed wrong on an invoice, on purpose.</summary>
public enum Fault
{
    None,

    /// <summary>One line's amount has two figures transposed; subtotal, tax and total follow it.</summary>
    LineAmount,

    /// <summary>The subtotal is off; tax and total follow it.</summary>
    Subtotal,

    /// <summary>The tax is off; the total follows it.</summary>
    Tax,

    /// <summary>The total has two figures transposed.</summary>
    Total,
}
