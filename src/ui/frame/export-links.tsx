/** The list as it is shown, as a file. */
export function ExportLinks({ of, path }: { of: string; path: string }) {
  return (
    <span className="flex items-baseline gap-2 text-[12px]">
      <span className="second">Export</span>
      {(['csv', 'xlsx'] as const).map((as) => (
        <a
          key={as}
          className="link"
          href={`${path}${path.includes('?') ? '&' : '?'}as=${as}`}
          aria-label={`${of} as ${as.toUpperCase()}`}
          download
        >
          {as.toUpperCase()}
        </a>
      ))}
    </span>
  );
}
