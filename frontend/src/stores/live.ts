/** The live channel: a screen that is behind asks again. */
import { useBook } from './book'
import { useJournal } from './journal'
import { useShop } from './shop'

export function listenLive(): void {
  const book = useBook()
  const shop = useShop()
  const journal = useJournal()
  let wait = 500

  function connect() {
    const socket = new WebSocket(`${window.location.origin.replace('http', 'ws')}/ws/live`)
    socket.onopen = () => {
      wait = 500
      void journal.sync()
      void book.reload()
      if (shop.view) void shop.load()
    }
    socket.onmessage = (event: MessageEvent<string>) => {
      const news = JSON.parse(event.data) as { build: string; seq: number }
      if (book.card && news.build === book.card.id && news.seq > book.card.frame.head && !book.busy)
        void book.reload()
      if (!news.build && shop.view) void shop.load()
    }
    socket.onclose = () => {
      window.setTimeout(connect, wait)
      wait = Math.min(wait * 2, 8000)
    }
  }
  connect()
  void journal.sync()
}
