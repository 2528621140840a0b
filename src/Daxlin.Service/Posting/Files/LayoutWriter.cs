using System.Text;
using Daxlin.Core.Posting.Layouts;

namespace Daxlin.Service.Posting.Files;

/// <summary>Writes what a layout makes of invoices into one file.</summary>
internal abstract class LayoutWriter : IDisposable
{
    protected MemoryStream Bytes { get; } = MemoryOfFiles.New();

    public int Records { get; protected set; }

    public abstract string MediaType { get; }

    /// <summary>Of a text; null for a file that is none.</summary>
    public virtual Encoding? Encoding => null;

    /// <summary>Adds an invoice's records, in their order.</summary>
    /// <exception cref="UnwritableException">Something of it has no place in the file.</exception>
    public abstract void Add(LaidOutInvoice invoice, IEnumerable<LaidOutRecord> records);

    /// <summary>Ends the file; nothing is added after.</summary>
    /// <param name="sums">What the proving columns came to, of all files together.</param>
    public abstract byte[] End(IReadOnlyCollection<ProvedSum> sums);

    /// <summary>Lets go of what was written, whether it was ended or not.</summary>
    public virtual void Dispose()
    {
        Bytes.Dispose();
        GC.SuppressFinalize(this);
    }
}
